import { defineStore } from 'pinia'
import { computed, ref, shallowReactive, shallowRef, watch } from 'vue'

import { ask } from '../../api/ask'
import { api } from '../../api/client'
import type { SetCells, TableColumn, TableRow } from '../../api/types'
import { useSite } from '../../site/useSite'
import { cellKey, merged, parted, textsOf, within, type Bad, type Hand } from './hands'
import { sent } from './sent'

export { cellKey } from './hands'

/** A text that was refused in a cell, with why. It stays there until it is mended or dropped. */
export interface Refused {
  text: string
  reason: string
}

/** The channel table as texts: the server writes and reads them; here they are shown, and what was typed is echoed. */
export const useTable = defineStore('table', () => {
  const site = useSite()
  const columns = shallowRef<TableColumn[]>([])
  const rows = shallowReactive(new Map<string, TableRow>())
  const failure = ref('')
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
      hands.value = []
      columns.value = []
    },
  )

  /** Texts on their way to the server. */
  const pending = computed(() => textsOf(site.waiting.flatMap((w) => w.edits.flatMap((e) => e.setCells ?? []))))

  const places = computed(() => new Map(columns.value.map((c, i) => [c.id, i])))
  const text = (channel: string, column: string) => {
    const key = cellKey(channel, column)
    return (
      held.value.get(key) ?? pending.value.get(key) ?? rows.get(channel)?.values[places.value.get(column) ?? -1] ?? ''
    )
  }

  /** Blocks that were refused: they stay in hand, as they were pasted, until they are set or given up. */
  const hands = shallowRef<Hand[]>([])
  const refused = computed(() => {
    const cells = new Map<string, Refused>()
    for (const { cells: block, bad } of hands.value) {
      for (const b of bad) {
        const { channel, values } = block.rows[b.row]!
        if (channel && b.column >= 0)
          cells.set(cellKey(channel, block.columns[b.column]!), { text: values[b.column] ?? '', reason: b.reason })
      }
    }
    return cells
  })
  const held = computed(() => textsOf(hands.value.map((h) => h.cells)))

  /** Sets cells. What cannot be set stays in hand, with the reasons; a cell of a block in hand goes with its block. */
  function set(cells: SetCells) {
    const hand = hands.value.find((h) => h.cells !== cells && within(h.cells, cells))
    if (hand) correct(hand, merged(hand.cells, cells))
    else handOver(cells)
  }

  const numeric = (id: string) => !!columns.value.find((c) => c.id === id)?.numeric

  /** Hands a block to the server, unless a number in it can mean two to whoever wrote it. */
  function handOver(cells: SetCells) {
    const { cells: ours, bad } = sent(cells, numeric)
    if (bad.length) void mark(cells, ours, bad)
    else site.change([{ setCells: ours }], undefined, () => void mark(cells, ours))
  }

  /** Tries a block in hand again with other texts. */
  function correct(hand: Hand, cells: SetCells) {
    hands.value = hands.value.filter((h) => h !== hand)
    handOver(cells)
  }

  /** Corrects one cell of a block in hand. */
  function mend(hand: Hand, bad: Bad, text: string) {
    const rows = hand.cells.rows.map((r, i) => (i === bad.row ? { ...r, values: r.values.with(bad.column, text) } : r))
    correct(hand, { ...hand.cells, rows })
  }

  /** Keeps a block in hand with what is wrong with it: what was found here, and what the server finds. */
  async function mark(cells: SetCells, ours: SetCells, found: Bad[] = []) {
    const { data } = await ask(api.POST('/api/plans/{id}/table/try', { params: site.here, body: ours }))
    const others = data?.bad.filter((b) => !found.some((f) => f.row === b.row && f.column === b.column)) ?? []
    if (found.length + others.length) hands.value = [...hands.value, { cells, bad: [...found, ...others] }]
  }

  /** Sets what can be set of a block, and keeps the rest in hand: cells, and rows that are new or wrong as a whole. */
  function setGood(hand: Hand) {
    const { good, rest } = parted(hand)
    hands.value = hands.value.flatMap((h) => (h === hand ? rest : [h]))
    if (good.length) site.change(good.map((cells) => ({ setCells: sent(cells, numeric).cells })))
  }

  const forget = () => (hands.value = [])

  return { columns, rows, hands, refused, failure, load, text, set, mend, setGood, forget }
})
