/** Statuses that may be better in a moment: too much to do, a proxy without its server, a database that is away. */
const passing = new Set([429, 502, 503, 504])

/** Tells whether an answer may be another when it is asked for again. */
export const mayPass = (status: number) => passing.has(status)

/** How long to wait before trying again, in milliseconds: at first, and at most. */
export const patience = { first: 500, most: 5000 }

export const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds))

/** A key under which the server makes a change once, however often it is sent. */
export function newKey(): string {
  return Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) => byte.toString(16).padStart(2, '0')).join('')
}

/** Asks again with growing pauses, some times, when the network fails or the answer may pass. The request has a key. */
export async function again<T extends { response: Response }>(ask: () => Promise<T>, tries = 5): Promise<T> {
  let wait = patience.first
  for (let left = tries - 1; ; left--) {
    try {
      const answer = await ask()
      if (!mayPass(answer.response.status) || left <= 0) return answer
    } catch (failure) {
      if (left <= 0) throw failure
    }
    await pause(wait)
    wait = Math.min(patience.most, wait * 2)
  }
}
