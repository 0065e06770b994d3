<script setup lang="ts">
import { ElButton, ElDialog } from 'element-plus'
import { ref, watch } from 'vue'

import { useAnswer } from '../api/ask'
import { api, fileBody } from '../api/client'
import type { SaidName } from '../api/types'
import { useSite } from '../site/useSite'
import { count } from '../ui/figures'
import TableNames from './TableNames.vue'

/** Says what a table file would do before it does it. */
const props = defineProps<{ file: File }>()
const emit = defineEmits<{ done: [] }>()
const site = useSite()

/** What names mean that this plan does not know. */
const names = ref<SaidName[]>([])
const { data: found, failure } = useAnswer(
  () => [props.file, names.value],
  () => {
    const query = { names: names.value.length ? JSON.stringify(names.value) : undefined }
    return api.POST('/api/plans/{id}/table/read', { params: { ...site.here, query }, ...fileBody(props.file) })
  },
  { keep: true },
)
watch(
  () => props.file,
  () => (names.value = []),
)

function accept() {
  if (found.value?.edit) site.change([...found.value.makes, { setCells: found.value.edit }])
  emit('done')
}
</script>

<template>
  <ElDialog
    :model-value="true"
    :title="`Channels from ${file.name}`"
    width="720"
    data-test="table-import"
    @close="emit('done')"
  >
    <p v-if="failure" class="short" role="alert">{{ failure }} Nothing was changed.</p>
    <template v-if="found">
      <p>
        <b>{{ count(found.added, 'channel') }}</b> to add, <b>{{ found.changed }}</b> to change, {{ found.same }} as
        they are.
        <span v-if="found.bad.length" class="short"
          >{{ count(new Set(found.bad.map((b) => b.line)).size, 'row') }} left out.</span
        >
      </p>
      <p v-if="found.encoding && found.encoding !== 'UTF-8'" class="soft" data-test="encoding">
        The file was read as {{ found.encoding }}: look at accents and signs below before you use it.
      </p>
      <TableNames v-if="found.unknown.length" v-model="names" :table="found" />
      <div v-if="found.rows.length" class="bad" data-test="table-rows">
        <table>
          <thead>
            <tr>
              <th>Line</th>
              <th>Channel</th>
              <th>What changes</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="r in found.rows" :key="r.line">
              <td class="number">{{ r.line }}</td>
              <td>{{ r.channel || 'no name' }}<span v-if="r.new" class="soft"> (new)</span></td>
              <td>
                <span v-for="(c, k) in r.cells" :key="k"
                  >{{ k ? '; ' : '' }}{{ c.column }}:
                  <template v-if="!r.new"
                    ><s class="soft">{{ c.old || 'empty' }}</s> → </template
                  >{{ c.new || 'empty' }}</span
                >
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="found.bad.length" class="short">Left out:</p>
      <div v-if="found.bad.length" class="bad" data-test="table-bad">
        <table>
          <thead>
            <tr>
              <th>Line</th>
              <th>Column</th>
              <th>Cell</th>
              <th>Why</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(b, i) in found.bad.slice(0, 100)" :key="i">
              <td class="number">{{ b.line }}</td>
              <td>{{ b.column || 'the row' }}</td>
              <td>{{ b.text }}</td>
              <td>{{ b.reason }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="soft">
        Columns understood: {{ found.columns.join(', ') }}.<template v-if="found.ignored.length">
          Not understood, and left out: {{ found.ignored.join(', ') }}.</template
        >
      </p>
    </template>
    <template #footer>
      <ElButton @click="emit('done')">Cancel</ElButton>
      <ElButton type="primary" :disabled="!found?.edit" data-test="accept-table" @click="accept">{{
        found?.bad.length ? 'Use the good rows' : 'Use these values'
      }}</ElButton>
    </template>
  </ElDialog>
</template>

<style scoped>
.bad {
  max-height: 240px;
  overflow: auto;
}

table {
  border-collapse: collapse;
  width: 100%;
}

th,
td {
  text-align: left;
  padding: 2px 8px 2px 0;
  border-bottom: 1px solid var(--rule);
  vertical-align: top;
}
</style>
