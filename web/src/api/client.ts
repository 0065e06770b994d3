import createClient from 'openapi-fetch'

import { HOUSE, kept } from '../habits/kept'
import { author } from './author'
import { signedOut } from './session'
import type { paths } from './schema'
import type { Problem } from './types'

/** How the reader reads; nothing where that is how everything is written anyway. */
const habits = () => (kept === HOUSE ? undefined : import('../habits/page'))
habits()?.catch(() => undefined) // the first answer asks again

/** The API, typed by the server's own description of it. */
export const api = createClient<paths>({ baseUrl: '/' })

api.use({
  onRequest({ request }) {
    request.headers.set('Wakefield-Author', encodeURIComponent(author.value))
    return request
  },
  async onResponse({ response }) {
    const path = new URL(response.url).pathname
    if (response.status === 401 && !/^[/]api[/](sign-in|shared|invitation)/.test(path)) signedOut.value = true
    return (await habits())?.heard(response)
  },
})

/** A file as the body of a request, which the description of the API has as a text. */
export function fileBody(file: Blob, type = 'application/octet-stream') {
  return {
    headers: { 'Content-Type': type },
    body: file as unknown as string,
    bodySerializer: (body: unknown) => body as Blob,
  }
}

/** Says in one line what a problem is. */
export function inWords(problem: Problem | undefined, otherwise = 'The server does not answer.'): string {
  const details = (problem?.errors ?? []).filter((e) => e.location).map((e) => `${e.location}: ${e.message}`)
  if (problem?.detail && problem.detail !== 'validation failed') return problem.detail
  return details.join('; ') || problem?.detail || otherwise
}
