import { defineStore } from 'pinia'
import { computed, ref, shallowReactive, shallowRef, watch } from 'vue'

import { ask } from '../../api/ask'
import { api } from '../../api/client'
import type { SetCells, TableColumn, TableRow } from '../../api/types'
import { useSite } from '../../site/useSite'

/** A text that was refused in a cell, with why. It stays there until it is mended or dropped. */
export interface Refused {
  text: string
  reason: string
}

export const cellKey = (channel: string, column: string) => `${channel}\n${column}`

/** The channel table as texts: the server writes and reads them; here they are shown, and what was typed is echoed. */
export const useTable = defineStore('table', () => {
  const site = useSite()
  const columns = shallowRef<TableColumn[]>([])
  const rows = shallowReactive(new Map<string, TableRow>())
  const refused = shallowReactive(new Map<string, Refused>())
  const failure = ref('')
  /** Rows that can be set after others were refused. */
  const rest = shallowRef<{ bad: number; good: SetCells }>()
  let wanted = false

  async function load() {
    wanted = true
    failure.value = ''
    const told = await ask(api.GET('/api/plans/{id}/table', { params: site.here }))
    failure.value = told.problem
    if (!told.data) return
    rows.clear()
    for (const r of told.data.rows) rows.set(r.id, r)
    columns.value = told.data.columns
  }

  // Names that stand in cells come from elsewhere in the plan; where they change, the table is read anew.
  const names = computed(() => [site.plan?.recorders, site.plan?.kinds, site.plan?.activities, site.plan?.weeks])
  watch(
    () => [site.loaded, ...names.value] as const,
    () => wanted && void load(),
  )
  watch(
    () => site.answered,
    (answer) => {
      if (!answer || !wanted) return
      for (const r of answer.rows) rows.set(r.id, r)
      const known = new Set(answer.order)
      for (const id of rows.keys()) if (!known.has(id)) rows.delete(id)
    },
  )
  watch(
    () => site.id,
    () => {
      wanted = false
      rows.clear()
      refused.clear()
      columns.value = []
      rest.value = undefined
    },
  )

  /** Texts on their way to the server. */
  const pending = computed(() => {
    const texts = new Map<string, string>()
    for (const { edits } of site.waiting) {
      for (const { setCells } of edits) {
        setCells?.rows.forEach((row) =>
          setCells.columns.forEach((c, i) => row.channel && texts.set(cellKey(row.channel, c), row.values[i]!)),
        )
      }
    }
    return texts
  })

  const places = computed(() => new Map(columns.value.map((c, i) => [c.id, i])))
  const text = (channel: string, column: string) => {
    const key = cellKey(channel, column)
    return (
      refused.get(key)?.text ??
      pending.value.get(key) ??
      rows.get(channel)?.values[places.value.get(column) ?? -1] ??
      ''
    )
  }

  /** Sets cells. What cannot be set stays in its cell, marked, with the reason; the other rows are offered. */
  function set(cells: SetCells) {
    rest.value = undefined
    for (const row of cells.rows)
      for (const c of cells.columns) if (row.channel) refused.delete(cellKey(row.channel, c))
    site.change([{ setCells: cells }], undefined, () => void mark(cells))
  }

  async function mark(cells: SetCells) {
    const { data } = await ask(api.POST('/api/plans/{id}/table/try', { params: site.here, body: cells }))
    if (!data) return
    for (const bad of data.bad) {
      const row = cells.rows[bad.row]!
      const at = Math.max(0, bad.column)
      const channel = row.channel || `new row ${bad.row + 1}`
      refused.set(cellKey(channel, cells.columns[at]!), { text: row.values[at] ?? '', reason: bad.reason })
    }
    if (data.good) rest.value = { bad: cells.rows.length - data.good.rows.length, good: data.good }
  }

  function setRest() {
    if (rest.value) site.change([{ setCells: rest.value.good }])
    rest.value = undefined
  }

  function forget() {
    refused.clear()
    rest.value = undefined
  }

  return { columns, rows, refused, failure, rest, load, text, set, setRest, forget }
})
