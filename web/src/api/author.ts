import { useStorage } from '@vueuse/core'

/** Whose name stands beside a change in the history. */
export const author = useStorage('wakefield-author', 'Planner')
