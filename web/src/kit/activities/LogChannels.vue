<script setup lang="ts">
import { computed } from 'vue'

import type { ReadLog } from '../../api/types'
import { count, three } from '../../ui/figures'

/** Whose events are taken from a log of several channels: one's, or each one's. */
const props = defineProps<{ channels: ReadLog['channels']; open: boolean }>()
const emit = defineEmits<{ name: [name: string] }>()
const pick = defineModel<string>('pick', { required: true })
const each = defineModel<boolean>('each', { required: true })
const able = computed(() => props.channels.filter((c) => c.activity).length)

function choose(name: string) {
  pick.value = name
  each.value = false
  emit('name', name)
}
</script>

<template>
  <fieldset data-test="log-channels">
    <legend :class="{ short: open && !each }">Whose events?</legend>
    <label v-if="able > 1" class="whose"
      ><input v-model="each" type="radio" name="whose" :value="true" @change="pick = ''" /> each of the
      {{ able }} becomes an activity</label
    >
    <div class="many">
      <label v-for="c in channels" :key="c.name" class="whose">
        <input type="radio" name="whose" :checked="pick === c.name" @change="choose(c.name)" />
        {{ c.name || '(no name)' }}
        <span class="soft">{{ count(c.events, 'event') }}, {{ three(c.perDay) }} a day</span>
      </label>
    </div>
  </fieldset>
</template>

<style scoped>
fieldset {
  margin: 6px 0;
  padding: 4px 10px 6px;
  border: 1px solid var(--rule);
  border-radius: 6px;
}

.many {
  max-height: 150px;
  overflow: auto;
}

.whose {
  display: flex;
  gap: 7px;
  align-items: baseline;
  padding: 2px 0;
}
</style>
