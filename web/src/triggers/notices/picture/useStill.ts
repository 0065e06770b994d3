import { useEventListener } from '@vueuse/core'
import { computed, ref, watch } from 'vue'

import { ask } from '../../../api/ask'
import { api, fileBody } from '../../../api/client'
import type { Channel } from '../../../api/types'
import { useSite } from '../../../site/useSite'
import type { Picture } from './usePicture'

const largest = 8 * 2 ** 20

/** The still of a channel: shown, and given by choosing a file, dropping or pasting one. */
export function useStill(channel: () => Channel | undefined, picture: Picture) {
  const site = useSite()
  const busy = ref(false)
  const missing = ref(false) // the plan names one that is not kept here
  const over = ref(false) // a file is held over the page
  const id = computed(() => channel()?.scene?.picture ?? '')
  const source = computed(() => (id.value ? `/api/plans/${site.planId}/pictures/${id.value}` : ''))
  watch(source, () => (missing.value = false))

  async function give(file: File | undefined) {
    const c = channel()
    if (!file || !c || busy.value) return
    if (file.size > largest) {
      picture.complain(`${file.name} has ${(file.size / 2 ** 20).toFixed(1)} MB; 8 MB are the most.`)
      return
    }
    busy.value = true
    const told = await ask(api.POST('/api/plans/{id}/pictures', { params: site.here, ...fileBody(file) }))
    busy.value = false
    if (told.data) picture.change([{ setGround: { channel: c.id, picture: told.data.id } }])
    else picture.complain(`${file.name || 'What was pasted'}: ${told.problem} The picture stays as it was.`)
  }
  const remove = () => picture.change([{ setGround: { channel: channel()!.id, picture: '' } }])

  const isText = (target: EventTarget | null) =>
    target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement
  const firstOf = (files: FileList | undefined) => [...(files ?? [])].find((f) => f.type.startsWith('image/'))

  useEventListener(document, 'paste', (event: ClipboardEvent) => {
    const file = firstOf(event.clipboardData?.files)
    if (!file || isText(event.target)) return
    event.preventDefault()
    void give(file)
  })
  function drag(event: DragEvent) {
    if (!event.dataTransfer?.types.includes('Files')) return
    event.preventDefault()
    over.value = true
  }
  function drop(event: DragEvent) {
    event.preventDefault()
    over.value = false
    const file = event.dataTransfer?.files[0]
    if (file) void give(file)
  }
  return { id, source, busy, missing, over, give, remove, drag, drop }
}
