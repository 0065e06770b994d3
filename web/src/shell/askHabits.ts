import { createApp } from 'vue'

/** Asks how times, numbers and the week are to be shown, over whatever page is open. */
export async function askHabits() {
  const { default: ReaderHabits } = await import('./ReaderHabits.vue')
  const room = document.querySelector('section[aria-label="Find, and keys"]') ?? document.body
  const place = room.appendChild(document.createElement('div'))
  const app = createApp(ReaderHabits, {
    onClosed: () => {
      app.unmount()
      place.remove()
    },
  })
  app.mount(place)
}
