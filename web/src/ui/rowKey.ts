/**
 * A key for a row of a list that is typed in: by what it is about, and its place among those that are about the same.
 * What is typed stays with its row when rows come and go.
 */
export function rowKey<T>(list: readonly T[], i: number, about: (row: T) => string | number): string {
  const what = about(list[i]!)
  return `${what} ${list.slice(0, i).filter((row) => about(row) === what).length}`
}
