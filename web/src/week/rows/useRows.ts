import { useVirtualizer } from '@tanstack/vue-virtual'
import { useElementSize } from '@vueuse/core'
import { computed, watch, type Ref } from 'vue'

import { channelsOf } from '../../findings/useFindings'
import { useSite } from '../../site/useSite'
import { HEADING, ROW, rowsOf, TALLEST, type Arrangement } from './rows'
import { printing } from '../../ui/printing'
import { inside } from '../../ui/place'

/** The rows that are arranged, those of them that are in the window, and which channel is at a height. */
export function useRows(scroller: Readonly<Ref<HTMLElement | null>>, how: Ref<Arrangement>) {
  const site = useSite()
  const found = computed(() => new Set(site.findings.filter((f) => !f.accepted).flatMap(channelsOf)))
  const rows = computed(() =>
    rowsOf(site.plan?.channels ?? [], how.value, (id) => site.figures.get(id), found.value, site.plan?.recorders ?? []),
  )
  const order = computed(() => rows.value.flatMap((r) => (r.kind === 'channel' ? [r.channel.id] : [])))

  /** Rows are as tall as lets all of them be seen at once, within limits. */
  const { height: room } = useElementSize(scroller)
  const rowHeight = computed(() => {
    const headings = rows.value.filter((r) => r.kind === 'group').length
    const each = Math.floor((room.value - headings * HEADING) / Math.max(1, rows.value.length - headings))
    return Math.max(ROW, Math.min(TALLEST, each))
  })

  const virtual = useVirtualizer(
    computed(() => ({
      count: rows.value.length,
      getScrollElement: () => scroller.value,
      estimateSize: (i: number) => (rows.value[i]!.kind === 'group' ? HEADING : rowHeight.value),
      overscan: printing.value ? rows.value.length : 6,
    })),
  )
  watch(rowHeight, () => virtual.value.measure())

  /** The channel at a height of the window, if a row is there. */
  function channelAt(clientY: number): string | undefined {
    const y = inside(scroller.value!, { clientX: 0, clientY }).y + scroller.value!.scrollTop
    const item = virtual.value.getVirtualItems().find((v) => y >= v.start && y < v.end)
    const row = item && rows.value[item.index]
    return row?.kind === 'channel' ? row.channel.id : undefined
  }

  const reveal = (id: string) =>
    virtual.value.scrollToIndex(rows.value.findIndex((r) => r.kind === 'channel' && r.channel.id === id))

  return { rows, order, rowHeight, virtual, channelAt, reveal }
}
