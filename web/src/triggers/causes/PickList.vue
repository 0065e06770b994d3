<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'
import { useElementSize, useEventListener } from '@vueuse/core'
import { ElOption, ElSelect } from 'element-plus'
import { computed, ref, useId, useTemplateRef, watch } from 'vue'

import { usePicking } from './usePicking'
import { count } from '../../ui/figures'
import { printing } from '../../ui/printing'

/**
 * One side of what causes what: a long list by groups, of which some rows are picked. A click picks one, with Ctrl it
 * is beside the others, with Shift all between. By keyboard: arrows move, Shift extends, Space picks beside the others.
 */
export interface PickRow {
  key: string
  name: string
  group: string
  note?: string
  short?: boolean // whether the note is a lack
  ties: number
}
const props = defineProps<{ label: string; rows: PickRow[]; tied: Set<string>; tiedFirst: boolean; empty: string }>()
const picked = defineModel<string[]>({ required: true })
const ROW = 28
const id = useId()
const search = ref('')
const group = ref('')
const scroller = useTemplateRef('scroller')
const { height } = useElementSize(scroller)
const groups = computed(() => [...new Set(props.rows.map((r) => r.group))])

/** Rows in order, with a heading before each group. */
const items = computed(() => {
  const words = search.value.trim().toLowerCase()
  const fits = props.rows.filter(
    (r) =>
      (!group.value || r.group === group.value) && (!words || `${r.group} ${r.name}`.toLowerCase().includes(words)),
  )
  const out: ({ heading: string } | { row: PickRow; kind?: string })[] = []
  const put = (heading: string, rows: PickRow[]) => {
    if (rows.length) out.push({ heading }, ...rows.map((row) => ({ row })))
  }
  const first = props.tiedFirst ? fits.filter((r) => props.tied.has(r.key)) : []
  if (first.length) out.push({ heading: 'Tied to what is picked' }, ...first.map((row) => ({ row, kind: row.group })))
  const rest = props.tiedFirst ? fits.filter((r) => !props.tied.has(r.key)) : fits
  for (const g of groups.value)
    put(
      g,
      rest.filter((r) => r.group === g),
    )
  return out
})
const keys = computed(() => items.value.map((i) => ('row' in i ? i.row.key : '')))
const order = computed(() => keys.value.filter(Boolean))
const virtual = useVirtualizer(
  computed(() => ({
    count: items.value.length,
    getScrollElement: () => scroller.value,
    estimateSize: () => ROW,
    overscan: printing.value ? items.value.length : 10,
  })),
)

const { at, click, key } = usePicking(picked, order, (k) => virtual.value.scrollToIndex(keys.value.indexOf(k)))

const top = ref(0)
useEventListener(scroller, 'scroll', () => (top.value = scroller.value?.scrollTop ?? 0), { passive: true })
const places = computed(() => new Map(keys.value.map((k, i) => [k, i])))
const emit = defineEmits<{ layout: [] }>()
watch([top, height, items], () => emit('layout'), { flush: 'post' })

/** Where the middle of a row is; at the edge of the list where it is out of sight, nothing if it is not in it. */
function yOf(key: string): number | undefined {
  const i = places.value.get(key)
  if (i === undefined) return undefined
  return Math.max(2, Math.min(height.value - 2, i * ROW + ROW / 2 - top.value)) + (scroller.value?.offsetTop ?? 0)
}
defineExpose({ yOf })
</script>

<template>
  <section class="side" :aria-label="label">
    <h2>{{ label }}</h2>
    <div class="find">
      <input v-model="search" type="search" :placeholder="`Find among ${rows.length}`" :aria-label="`Find: ${label}`" />
      <ElSelect v-model="group" size="small" :empty-values="[null, undefined]" :aria-label="`Kind: ${label}`">
        <ElOption value="" label="all kinds" />
        <ElOption v-for="g in groups" :key="g" :value="g" :label="g" />
      </ElSelect>
    </div>
    <slot />
    <div
      ref="scroller"
      class="rows"
      role="listbox"
      tabindex="0"
      aria-multiselectable="true"
      :aria-label="label"
      :aria-activedescendant="at ? `${id}-${places.get(at)}` : undefined"
      @keydown="key"
    >
      <p v-if="!order.length" class="soft">{{ search ? `Nothing is called “${search}”.` : empty }}</p>
      <div :style="{ height: `${virtual.getTotalSize()}px` }">
        <template v-for="v in virtual.getVirtualItems()" :key="v.index">
          <div
            v-for="item in [items[v.index]!]"
            :id="`${id}-${v.index}`"
            :key="'row' in item ? item.row.key : item.heading"
            class="row"
            :class="
              'row' in item
                ? { picked: picked.includes(item.row.key), tied: tied.has(item.row.key), at: at === item.row.key }
                : { heading: true }
            "
            :role="'row' in item ? 'option' : 'presentation'"
            :aria-selected="'row' in item ? picked.includes(item.row.key) : undefined"
            :aria-setsize="'row' in item ? order.length : undefined"
            :aria-posinset="'row' in item ? order.indexOf(item.row.key) + 1 : undefined"
            :data-pick="'row' in item ? item.row.key : undefined"
            :style="{ transform: `translateY(${v.start}px)` }"
            @click="'row' in item && click($event, item.row.key)"
          >
            <template v-if="'row' in item">
              <span class="name" :title="item.row.name"
                ><span v-if="item.kind" class="soft kind">{{ item.kind }}</span
                >{{ item.row.name }}</span
              >
              <span v-if="item.row.note" class="note" :class="item.row.short ? 'short' : 'soft'">{{
                item.row.note
              }}</span>
              <span class="ties" :title="count(item.row.ties, 'tie')">{{ item.row.ties || '' }}</span>
            </template>
            <template v-else>{{ item.heading }}</template>
          </div>
        </template>
      </div>
    </div>
  </section>
</template>

<style scoped>
.side {
  display: grid;
  grid-template-rows: auto auto auto minmax(0, 1fr);
  min-height: 0;
  position: relative;
}

h2 {
  margin: 0 8px 4px;
}

.find {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 5px;
  margin: 0 8px 5px;
}

.find > input {
  width: 100%;
}

.find .el-select {
  width: 120px;
}

.rows {
  grid-row: 4;
  overflow: auto;
  position: relative;
  user-select: none;
  border-top: 1px solid var(--rule);
}

.rows > div {
  position: relative;
}

.rows p {
  margin: 8px;
}

.row {
  position: absolute;
  inset: 0 0 auto;
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 22px;
  gap: 6px;
  align-items: center;
  height: 28px;
  padding: 0 6px 0 9px;
  border-left: 3px solid transparent;
  cursor: pointer;
}

.row.heading {
  display: flex;
  align-items: end;
  padding-bottom: 3px;
  color: var(--soft);
  cursor: default;
}

.row:not(.heading):hover {
  background: var(--band);
}

.row.tied {
  border-left-color: var(--motion);
}

.row.picked {
  background: var(--selected);
  border-left-color: var(--base);
  font-weight: 600;
}

.rows:focus-visible .at {
  outline: 2px solid var(--base);
  outline-offset: -2px;
}

.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.kind {
  margin-right: 5px;
  font-weight: 400;
}

.note {
  font-size: var(--second);
  font-weight: 400;
  white-space: nowrap;
}

.ties {
  font-size: var(--second);
  font-weight: 400;
  text-align: right;
}
</style>
