import Papa from 'papaparse'

/** A block of cells as spreadsheets put it on the clipboard: tabs between cells, lines between rows. */
export const writeBlock = (rows: string[][]) => Papa.unparse(rows, { delimiter: '\t', newline: '\n' })

/** Reads what writeBlock and spreadsheets write; a cell in quotes may hold tabs and lines. */
export function readBlock(text: string): string[][] {
  const { data } = Papa.parse<string[]>(text.replace(/\r?\n$/, ''), { delimiter: '\t' })
  return data.length ? data : [['']]
}
