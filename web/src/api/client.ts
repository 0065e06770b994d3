import createClient from 'openapi-fetch'

import { author } from './author'
import type { paths } from './schema'
import type { Problem } from './types'

/** The API, typed by the server's own description of it. */
export const api = createClient<paths>({ baseUrl: '/' })

api.use({
  onRequest({ request }) {
    request.headers.set('Wakefield-Author', encodeURIComponent(author.value))
    return request
  },
})

/** Says in one line what a problem is. */
export function inWords(problem: Problem | undefined, otherwise = 'The server does not answer.'): string {
  const details = (problem?.errors ?? []).filter((e) => e.location).map((e) => `${e.location}: ${e.message}`)
  if (problem?.detail && problem.detail !== 'validation failed') return problem.detail
  return details.join('; ') || problem?.detail || otherwise
}
