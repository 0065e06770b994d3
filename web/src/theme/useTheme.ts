import { useStorage, usePreferredDark } from '@vueuse/core'
import { computed, watchEffect } from 'vue'

const chosen = useStorage<'light' | 'dark' | null>('wakefield-theme', null, undefined, {
  serializer: { read: (v) => (v === 'dark' || v === 'light' ? v : null), write: (v) => v ?? '' },
})
const preferred = usePreferredDark()
const dark = computed(() => (chosen.value ? chosen.value === 'dark' : preferred.value))

watchEffect(() => document.documentElement.classList.toggle('dark', dark.value))

/** The theme, as the system prefers it until somebody chooses. */
export function useTheme() {
  return { dark, toggle: () => (chosen.value = dark.value ? 'light' : 'dark') }
}
