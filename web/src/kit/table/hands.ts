import type { SetCells, TriedCells } from '../../api/types'

export const cellKey = (channel: string, column: string) => `${channel}\n${column}`

export type Bad = TriedCells['bad'][number]

/** A block of cells that was refused, with what is wrong with it. */
export interface Hand {
  cells: SetCells
  bad: Bad[]
}

/** The texts of blocks by cell; of new rows there is no cell yet. */
export function textsOf(blocks: SetCells[]) {
  const texts = new Map<string, string>()
  for (const { columns, rows } of blocks)
    for (const { channel, values } of rows)
      if (channel) columns.forEach((c, i) => texts.set(cellKey(channel, c), values[i] ?? ''))
  return texts
}

/** Whether every cell of one block is a cell of another. */
export function within(block: SetCells, cells: SetCells) {
  const channels = new Set(block.rows.map((r) => r.channel))
  return (
    cells.columns.every((c) => block.columns.includes(c)) &&
    cells.rows.every((r) => r.channel && channels.has(r.channel))
  )
}

/** A block with other texts in some of its cells. */
export function merged(block: SetCells, cells: SetCells): SetCells {
  const texts = textsOf([cells])
  const rows = block.rows.map((r) => ({
    ...r,
    values: r.values.map((v, i) => (r.channel && texts.get(cellKey(r.channel, block.columns[i]!))) ?? v),
  }))
  return { ...block, rows }
}

/** What can be set of a block, and what stays in hand: bad cells, and rows that are new or wrong as a whole. */
export function parted({ cells, bad }: Hand): { good: SetCells[]; rest: Hand[] } {
  const good: SetCells[] = []
  const rest: Hand[] = []
  const whole = cells.rows.filter((_, i) => !bad.some((b) => b.row === i))
  if (whole.length) good.push({ columns: cells.columns, rows: whole })
  cells.rows.forEach((row, i) => {
    const here = bad.filter((b) => b.row === i)
    if (!here.length) return
    const wrong = new Set(here.map((b) => b.column))
    if (!row.channel || wrong.has(-1)) {
      rest.push({ cells: { columns: cells.columns, rows: [row] }, bad: here.map((b) => ({ ...b, row: 0 })) })
      return
    }
    const of = (keep: (j: number) => boolean): SetCells => ({
      columns: cells.columns.filter((_, j) => keep(j)),
      rows: [{ ...row, values: row.values.filter((_, j) => keep(j)) }],
    })
    if (wrong.size < cells.columns.length) good.push(of((j) => !wrong.has(j)))
    const left = of((j) => wrong.has(j))
    rest.push({
      cells: left,
      bad: here.map((b) => ({ ...b, row: 0, column: left.columns.indexOf(cells.columns[b.column]!) })),
    })
  })
  return { good, rest }
}
