<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'
import { useMediaQuery } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { SiteLine } from '../api/types'
import { printing } from '../ui/printing'
import SiteRow from './SiteRow.vue'
import { useSiteColumns } from './useSiteColumns'

/** Sites one below the other; of thousands those in sight are drawn. */
const props = defineProps<{ sites: SiteLine[] }>()
const emit = defineEmits<{ duplicate: [site: SiteLine]; archive: [site: SiteLine] }>()
const picked = defineModel<string[]>('picked', { required: true })
const { shown, grid } = useSiteColumns()

const scroller = ref<HTMLElement>()
const narrow = useMediaQuery('(max-width: 760px)')
const virtual = useVirtualizer(
  computed(() => ({
    count: props.sites.length,
    getScrollElement: () => scroller.value ?? null,
    estimateSize: () => (narrow.value ? 96 : 48),
    overscan: printing.value ? props.sites.length : 12,
  })),
)

const all = computed(() => props.sites.length > 0 && props.sites.every((s) => picked.value.includes(s.id)))
const toggleAll = () => (picked.value = all.value ? [] : props.sites.map((s) => s.id))

let last = ''
/** Chooses a site, or lets it go; with Shift all from the last one to it. */
function pick(site: SiteLine, event: MouseEvent) {
  const ids = props.sites.map((s) => s.id)
  const from = ids.indexOf(last)
  const to = ids.indexOf(site.id)
  const some = event.shiftKey && from >= 0 ? ids.slice(Math.min(from, to), Math.max(from, to) + 1) : [site.id]
  const on = !picked.value.includes(site.id)
  picked.value = on
    ? [...picked.value, ...some.filter((id) => !picked.value.includes(id))]
    : picked.value.filter((id) => !some.includes(id))
  last = site.id
}
</script>

<template>
  <div class="table" :class="{ narrow }">
    <div class="line head" :style="narrow ? undefined : { gridTemplateColumns: grid }">
      <input
        type="checkbox"
        :checked="all"
        aria-label="Choose all that are shown"
        data-test="pick-all"
        @click="toggleAll"
      />
      <span>Site</span>
      <template v-if="!narrow"
        ><span v-for="c in shown" :key="c.id" :class="{ number: ['channels', 'changed', 'storage'].includes(c.id) }">{{
          c.name
        }}</span></template
      >
    </div>
    <div ref="scroller" class="rows" data-parts>
      <ul :style="{ height: `${virtual.getTotalSize()}px` }">
        <li
          v-for="v in virtual.getVirtualItems()"
          :key="sites[v.index]!.id"
          class="line"
          :class="{ picked: picked.includes(sites[v.index]!.id) }"
          :data-site="sites[v.index]!.id"
          :aria-setsize="sites.length"
          :aria-posinset="v.index + 1"
          :style="{
            transform: `translateY(${v.start}px)`,
            height: `${v.size}px`,
            gridTemplateColumns: narrow ? undefined : grid,
          }"
        >
          <SiteRow
            :site="sites[v.index]!"
            :picked="picked.includes(sites[v.index]!.id)"
            @pick="pick(sites[v.index]!, $event)"
            @duplicate="emit('duplicate', sites[v.index]!)"
            @archive="emit('archive', sites[v.index]!)"
          />
        </li>
      </ul>
    </div>
  </div>
</template>

<style scoped>
.table {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 6px;
}

.rows {
  overflow: auto;
  scrollbar-gutter: stable;
}

.line {
  display: grid;
  gap: 12px;
  align-items: center;
  padding: 0 8px 0 12px;
  border-bottom: 1px solid var(--rule);
}

.head {
  font-size: var(--second);
  color: var(--soft);
  height: 28px;
  padding-right: 23px;
}

.head .number {
  text-align: right;
}

ul {
  position: relative;
  list-style: none;
  margin: 0;
  padding: 0;
}

li {
  position: absolute;
  inset: 0 0 auto;
}

li:hover {
  background: var(--paper);
}

li.picked {
  background: var(--selected);
}

.narrow .line {
  grid-template-columns: 24px minmax(0, 1fr) auto 28px;
  grid-auto-flow: dense;
  row-gap: 0;
}

.narrow li > :deep(*) {
  grid-column: 2 / 4;
}

.narrow li > :deep(input) {
  grid-column: 1;
  grid-row: 1 / 3;
}

.narrow li > :deep(.kept) {
  grid-column: 2;
  grid-row: 2;
}

.narrow li > :deep(.found) {
  grid-column: 3;
  grid-row: 2;
}

.narrow li > :deep(.el-dropdown) {
  grid-column: 4;
  grid-row: 1;
}

.narrow li > :deep(span:not(.kept, .found)),
.narrow li > :deep(time) {
  display: none;
}
</style>
