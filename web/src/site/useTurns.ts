/**
 * Lets what is asked for quickly happen one after the other: each waits until those before it are done. Where one comes
 * to nothing, those behind it are dropped, as they were asked for after it.
 */
export function useTurns<T>(take: (what: T) => Promise<boolean>) {
  const asked: T[] = []
  let busy = false
  return async function turn(what: T) {
    asked.push(what)
    if (busy) return
    busy = true
    while (asked.length) if (!(await take(asked.shift()!))) asked.length = 0
    busy = false
  }
}
