/** A block of cells as spreadsheets put it on the clipboard: tabs between cells, lines between rows. */
export function writeBlock(rows: string[][]): string {
  const cell = (text: string) => (/[\t\n"]/.test(text) ? `"${text.replace(/"/g, '""')}"` : text)
  return rows.map((row) => row.map(cell).join('\t')).join('\n')
}

/** Reads what writeBlock writes; a cell in quotes may hold tabs and lines. */
export function readBlock(text: string): string[][] {
  const rows: string[][] = [[]]
  let cell = ''
  let quoted = false
  const source = text.replace(/\r\n?/g, '\n').replace(/\n$/, '')
  for (let i = 0; i < source.length; i++) {
    const c = source[i]!
    if (quoted) {
      if (c !== '"') cell += c
      else if (source[i + 1] === '"') cell += source[++i]!
      else quoted = false
    } else if (c === '"' && cell === '') {
      quoted = true
    } else if (c === '\t' || c === '\n') {
      rows.at(-1)!.push(cell)
      cell = ''
      if (c === '\n') rows.push([])
    } else {
      cell += c
    }
  }
  rows.at(-1)!.push(cell)
  return rows
}
