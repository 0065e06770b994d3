<script setup lang="ts">
import { ref } from 'vue'

import type { Meeting, Revision } from '../api/types'
import { useSite } from '../site/useSite'
import { notice } from '../ui/notice'

/** Takes a single change back. Where others changed the same since, both are shown, and one of them is chosen. */
const props = defineProps<{ revision: Revision }>()
const site = useSite()
const meets = ref<Meeting[]>([])
const busy = ref(false)

async function take(anyway: boolean) {
  busy.value = true
  const back = await site.takeBack(props.revision.number, anyway)
  busy.value = false
  meets.value = back.now === 'meets' ? back.meets : []
  if (back.now === 'nothing')
    notice(`Nothing of revision ${props.revision.number} is left: it was undone, or what it was about is gone.`)
  else if (back.now === 'stale') notice('The plan was changed in the meantime. Here it is as it stands now.')
  else if (back.now === 'failed') notice(back.why, { error: true })
}
</script>

<template>
  <button
    type="button"
    class="plain-button link"
    :disabled="busy || site.role !== 'planner'"
    :data-take-back="revision.number"
    @click="take(false)"
  >
    Take back
  </button>
  <div v-if="meets.length" class="sheet meets" role="alert" data-test="meets">
    <p><b>The same was changed again since.</b> Nothing was taken back yet.</p>
    <table>
      <thead>
        <tr>
          <th>Revision {{ revision.number }} did</th>
          <th>Since then</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(m, i) in meets" :key="i">
          <td>{{ m.did }}</td>
          <td>{{ m.since }}</td>
        </tr>
      </tbody>
    </table>
    <button type="button" class="act" data-test="anyway" @click="take(true)">Undo both</button>
    <button type="button" class="act quiet" @click="meets = []">Leave it as it is</button>
  </div>
</template>

<style scoped>
.meets {
  order: 1; /* below all that can be done with a revision */
  flex-basis: 100%;
  white-space: normal;
}

.meets .act {
  margin-right: 8px;
}

p {
  margin: 0 0 4px;
}

table {
  border-collapse: collapse;
  margin-bottom: 8px;
}

th {
  text-align: left;
  font-weight: 400;
  font-size: var(--second);
  color: var(--soft);
}

td,
th {
  padding: 2px 12px 2px 0;
  vertical-align: top;
}
</style>
