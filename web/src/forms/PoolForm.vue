<script setup lang="ts">
import { ref } from 'vue'

import { inWords } from '../api/client'
import { choices } from '../api/format'
import type { Pool } from '../api/types'
import { useSite } from '../site/useSite'
import ChoiceField from '../ui/ChoiceField.vue'
import { three } from '../ui/figures'
import NumberField from '../ui/NumberField.vue'
import { rowKey } from '../ui/rowKey'

/** The drives of a pool and how they are arrayed. */
const props = defineProps<{ recorder: string; pool: Pool }>()
const site = useSite()
const problem = ref('')
const { layouts } = choices
const at = 'recorders.pools.'

/** TiB in a TB: 10¹² of 2⁴⁰ bytes. */
const TIB = 1e12 / 2 ** 40
const tibWords =
  'Drives are sold by the TB of a million million bytes. Some recorders show TiB of 1024 × 1024 × 1024 × 1024 bytes ' +
  'and often call them TB: the same drive then seems a tenth smaller. Type what is printed on the drive.'

function set(change: Partial<Pool>) {
  problem.value = ''
  const edit = { setPool: { recorder: props.recorder, pool: { ...props.pool, ...change } } }
  site.change([edit], undefined, (p) => (problem.value = inWords(p)))
}

/** Drives of which there are none any more are no group of drives. */
function setDrives(i: number, change: Partial<Pool['drives'][number]>) {
  set({ drives: props.pool.drives.map((g, k) => (k === i ? { ...g, ...change } : g)).filter((g) => g.count > 0) })
}
</script>

<template>
  <div v-for="(g, i) in pool.drives" :key="rowKey(pool.drives, i, (x) => x.terabytes)" class="group">
    <NumberField
      label="Drives"
      :value="g.count"
      :min="0"
      :member="`${at}drives.count`"
      data-field="count"
      @change="(v) => setDrives(i, { count: v })"
    />
    <NumberField
      label="Size of each"
      unit="TB"
      :value="g.terabytes"
      :member="`${at}drives.terabytes`"
      data-field="terabytes"
      @change="(v) => setDrives(i, { terabytes: v })"
    />
    <p class="soft tib" :title="tibWords">
      as printed on the drive, 10¹² bytes; {{ three(g.terabytes * TIB) }} TiB where a recorder counts in 1024s
    </p>
    <NumberField
      label="Rated for"
      none="unknown"
      unit="TB/y"
      :value="g.yearlyTB"
      :member="`${at}drives.yearlyTB`"
      @change="(v) => setDrives(i, { yearlyTB: v || undefined })"
    />
  </div>
  <button
    type="button"
    class="plain-button link"
    @click="set({ drives: [...pool.drives, { count: 1, terabytes: 4 }] })"
  >
    Drives of another size
  </button>
  <ChoiceField label="RAID level" :value="pool.layout" :choices="layouts" @change="(layout) => set({ layout })" />
  <NumberField
    label="Hot spares"
    :value="pool.hotSpares ?? 0"
    :member="`${at}hotSpares`"
    @change="(v) => set({ hotSpares: v || undefined })"
  />
  <NumberField
    label="Reserved"
    unit="%"
    :value="pool.reservePercent ?? 0"
    :member="`${at}reservePercent`"
    @change="(v) => set({ reservePercent: v || undefined })"
  />
  <p v-if="problem" class="short" role="alert">{{ problem }}</p>
</template>

<style scoped>
.group {
  padding-bottom: 3px;
  margin-bottom: 3px;
  border-bottom: 1px dotted var(--rule);
}

.tib {
  margin: 0 0 3px;
  font-size: var(--axis);
}
</style>
