import { useAnswer } from '../../api/ask'
import { api } from '../../api/client'
import { useSite } from '../../site/useSite'

export type Paper = 'customer' | 'sheet' | 'evidence' | 'walk-test' | 'walked'
export type Size = 'a4' | 'letter'

/** A paper as the server prints it, made anew whenever the plan or what is asked for changes. */
export function usePaper(paper: () => Paper, query: () => { size: Size; recorder?: string[] }, other: () => unknown) {
  const site = useSite()
  return useAnswer<ArrayBuffer>(
    () => [site.stamp, site.handed, paper(), JSON.stringify(query()), other()],
    () =>
      site.planId
        ? api.GET('/api/plans/{id}/papers/{paper}', {
            params: { path: { id: site.planId, paper: paper() }, query: query() },
            parseAs: 'arrayBuffer',
          })
        : undefined,
    { keep: true },
  )
}
