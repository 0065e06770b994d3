import { useStorage } from '@vueuse/core'
import { computed } from 'vue'

export const columns = [
  { id: 'stage', name: 'How far', width: '104px' },
  { id: 'place', name: 'Place', width: 'minmax(80px, 0.7fr)' },
  { id: 'tags', name: 'Tags', width: 'minmax(80px, 0.7fr)' },
  { id: 'kept', name: 'Days kept', width: '156px' },
  { id: 'worst', name: 'Worst channel', width: 'minmax(96px, 0.8fr)' },
  { id: 'found', name: 'Findings', width: '124px' },
  { id: 'storage', name: 'Storage', width: '76px' },
  { id: 'channels', name: 'Channels', width: '72px' },
  { id: 'changed', name: 'Changed', width: '88px' },
] as const
export type Column = (typeof columns)[number]['id']

const usual: Column[] = ['stage', 'place', 'tags', 'kept', 'worst', 'found', 'channels', 'changed']
const chosen = useStorage<Column[]>('wakefield-site-columns', usual)

/** Which columns the list of sites has, as the reader chose in this browser. */
export function useSiteColumns() {
  const shown = computed(() => columns.filter((c) => chosen.value.includes(c.id)))
  const grid = computed(() => `24px minmax(150px, 1.4fr) ${shown.value.map((c) => c.width).join(' ')} 28px`)
  const toggle = (id: Column) =>
    (chosen.value = chosen.value.includes(id) ? chosen.value.filter((c) => c !== id) : [...chosen.value, id])
  return { shown, grid, chosen, toggle }
}
