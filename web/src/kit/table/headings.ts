import type { TableColumn } from '../../api/types'

const plain = (text: string) => text.trim().toLowerCase()
const namesOf = (c: TableColumn) => [c.title, c.id, `${c.title} ${c.unit}`].map(plain)

/** The columns that a pasted row names, where it is a row of headings: at least two, and nothing else in it. */
export function headings(columns: TableColumn[], cells: string[]) {
  const named = cells.map((text, at) => {
    const c = columns.find((column) => namesOf(column).includes(plain(text)))
    return c && { at, id: c.id, title: c.title }
  })
  const found = named.filter((n) => n !== undefined)
  return found.length >= 2 && named.every((n, i) => n || !cells[i]!.trim()) ? found : undefined
}
