import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import { useSite } from '../site/useSite'

/** The days kept at every date of a year; of the present one where none is named. */
export function useYear(year: () => number | undefined = () => undefined) {
  const site = useSite()
  return useAnswer(
    () => [year(), site.stamp],
    () => api.GET('/api/plans/{id}/year', { params: { ...site.here, query: { year: year() } } }),
    { keep: true, debounce: 80 },
  )
}
