import { useEventListener } from '@vueuse/core'
import { ref, type Ref } from 'vue'

import { useSite } from '../../site/useSite'
import type { useGrid } from './useGrid'

/**
 * Renumbers channels by dragging their rows, and moves them to another recorder by dropping them among its channels
 * or on its name.
 */
export function useRowDrag(ids: Ref<string[]>, selected: () => string[]) {
  const site = useSite()
  /** The channel before which the rows would come; "*" is the end, "recorder …" the end of another one. */
  const before = ref('')
  let moving: string[] = []

  function down(event: PointerEvent, row: number, grid: ReturnType<typeof useGrid>) {
    if (event.button !== 0) return
    event.preventDefault()
    if (event.shiftKey) grid.row(grid.anchor.value.row, row)
    else if (!selected().includes(ids.value[row]!) || grid.range.value.left > 0) grid.row(row, row)
    moving = selected()
  }

  useEventListener(document, 'pointermove', (event) => {
    if (!moving.length) return
    const under = document.elementFromPoint(event.clientX, event.clientY)
    const recorder = under?.closest<HTMLElement>('[data-drop-recorder]')?.dataset.dropRecorder
    const row = under?.closest<HTMLElement>('[data-row]')?.dataset.row
    if (recorder) before.value = `recorder ${recorder}`
    else if (row) before.value = row === 'new' ? '*' : moving.includes(row) ? '' : row
  })

  useEventListener(document, 'pointerup', () => {
    const target = before.value
    const channels = moving
    before.value = ''
    moving = []
    if (!target || !channels.length) return
    const last = site.channels.get(ids.value.filter((id) => !channels.includes(id)).at(-1) ?? '')
    if (target.startsWith('recorder ')) move(channels, target.slice(9))
    else if (target === '*') move(channels, last?.recorder ?? site.channels.get(channels[0]!)!.recorder)
    else move(channels, site.channels.get(target)!.recorder, target)
  })

  useEventListener(document, 'keydown', (event) => {
    if (event.key !== 'Escape' || !moving.length) return
    moving = []
    before.value = ''
  })

  function move(channels: string[], recorder: string, target?: string) {
    site.change([{ moveChannels: { channels, recorder, ...(target && { before: target }) } }])
  }

  /** Moves the selected rows one up or down. */
  function step(by: -1 | 1) {
    const channels = selected()
    const [first, last] = [ids.value.indexOf(channels[0]!), ids.value.indexOf(channels.at(-1)!)]
    const target = by < 0 ? ids.value[first - 1] : ids.value[last + 2]
    const neighbour = by < 0 ? target : ids.value[last + 1]
    if (!neighbour) return
    move(
      channels,
      site.channels.get(neighbour)!.recorder,
      target && site.channels.get(target)!.recorder === site.channels.get(neighbour)!.recorder ? target : undefined,
    )
  }

  return { before, down, step }
}
