import { ref, type Ref } from 'vue'

/** Where the menu of a row is open, and for which channel. */
export function useRowMenu(scroller: Readonly<Ref<HTMLElement | null>>, cursor: () => string | undefined) {
  const menu = ref<{ channel: string; x: number; y: number }>()

  /** The key for menus opens it on the row of the cursor. */
  function openMenu(event: MouseEvent) {
    const row = (event.target as HTMLElement).closest<HTMLElement>('[data-channel]')
    const channel = row?.dataset.channel ?? cursor()
    if (!channel) return
    event.preventDefault()
    menuAt(channel, event)
  }

  /** Opens the menu where the pointer is, or beside the channel's name where there is no pointer. */
  function menuAt(channel: string, event: MouseEvent) {
    const box = scroller.value!.querySelector(`[data-channel="${CSS.escape(channel)}"] .name`)?.getBoundingClientRect()
    const pointed = event.detail > 0 || event.button === 2
    menu.value = {
      channel,
      x: pointed ? event.clientX : (box?.left ?? 0),
      y: pointed ? event.clientY : (box?.bottom ?? 0),
    }
  }

  return { menu, openMenu, menuAt }
}
