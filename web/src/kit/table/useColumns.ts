import { defaultRangeExtractor, useVirtualizer } from '@tanstack/vue-virtual'
import { computed, watch, type Ref } from 'vue'

import type { TableColumn } from '../../api/types'

const widths: Record<string, number> = {
  number: 44,
  name: 168,
  group: 104,
  recorder: 150,
  pool: 90,
  camera: 62,
  kind: 128,
  activity: 150,
  nuisance: 120,
  week: 170,
  detectedBy: 104,
  detectionHours: 170,
  shortest: 130,
  reliable: 96,
  catch: 120,
  pre: 88,
  post: 92,
  alarmPre: 124,
  alarmPost: 128,
  atLeast: 104,
  atMost: 96,
  address: 136,
}

/** Widths of columns that every stream or part has, by the end of their names. */
const endings: [RegExp, number][] = [
  [/\.rate$/, 136],
  [/\.size$/, 92],
  [/\.known$/, 84],
  [/gop|keyframe/, 108],
]
const GRIP = 26
export const FROZEN = 2 // number and name stay in view

/** How wide a column is, in pixels. */
export const widthOf = (c: TableColumn) => widths[c.id] ?? endings.find(([end]) => end.test(c.id))?.[1] ?? 78

/** Where columns are, in pixels, and which of them a scrolling box has cells for: those in view and the one at hand. */
export function useColumns(columns: Ref<TableColumn[]>, box: Ref<HTMLElement | null>, at: Ref<number>) {
  const lefts = computed(() => {
    let x = GRIP
    return columns.value.map((c) => ((x += widthOf(c)), x - widthOf(c)))
  })
  const total = computed(() => (lefts.value.at(-1) ?? 0) + widthOf(columns.value.at(-1)!))
  const places = computed(() =>
    columns.value.map((c, j) => ({ width: `${widthOf(c)}px`, left: `${lefts.value[j]}px` })),
  )
  const across = useVirtualizer(
    computed(() => ({
      horizontal: true,
      count: columns.value.length,
      getScrollElement: () => box.value,
      estimateSize: (j: number) => widthOf(columns.value[j]!),
      paddingStart: GRIP,
      overscan: 2,
      rangeExtractor: (range) => {
        const staying = [...Array(Math.min(FROZEN, range.count)).keys(), Math.min(at.value, range.count - 1)]
        return [...new Set([...staying, ...defaultRangeExtractor(range)])].sort((a, b) => a - b)
      },
    })),
  )
  watch(columns, () => across.value.measure())
  // As one text, so that rows are drawn again only when a column comes into view or leaves it.
  const listed = computed(() =>
    across.value
      .getVirtualItems()
      .map((item) => item.index)
      .join(),
  )
  const shown = computed(() => (listed.value ? listed.value.split(',').map(Number) : []))

  /** Columns of one group, side by side, under their name. */
  const groups = computed(() => {
    const out: { name: string; left: number; width: number }[] = []
    columns.value.forEach((c, i) => {
      const last = out.at(-1)
      if (last?.name === c.group) last.width += widthOf(c)
      else out.push({ name: c.group, left: lefts.value[i]!, width: widthOf(c) })
    })
    return out
  })

  /** Scrolls so far that a column is in view beside those that stay. */
  function reveal(column: number) {
    if (column < FROZEN || !box.value) return
    const [left, right] = [lefts.value[column]!, lefts.value[column]! + widthOf(columns.value[column]!)]
    const frozen = lefts.value[FROZEN] ?? 0
    if (left - frozen < box.value.scrollLeft) box.value.scrollLeft = left - frozen
    else if (right > box.value.scrollLeft + box.value.clientWidth) box.value.scrollLeft = right - box.value.clientWidth
  }

  return { total, places, groups, shown, reveal }
}
