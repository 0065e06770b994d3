import { computed } from 'vue'
import { useRouter } from 'vue-router'

import { useSite } from '../site/useSite'
import { useTheme } from '../theme/useTheme'
import { count } from '../ui/figures'
import { dayNames, WEEK } from '../time/week'
import { useHand } from '../hand/useHand'
import { askHabits } from './askHabits'
import { pages as known } from './pages'
import called from './synonyms.json'

/** What else people call a page or a part of one, by its title. */
const synonyms: Record<string, string | undefined> = called

export interface Command {
  kind: 'page' | 'channel' | 'duty' | 'week' | 'act'
  name: string
  hint?: string
  also?: string // what else people call it
  run: () => void
}

/** Everything the command box can find: pages, channels, duties, named weeks and acts. */
export function useCommands(help: () => void) {
  const site = useSite()
  const hand = useHand()
  const router = useRouter()
  const { toggle } = useTheme()
  const go = (name: string, params?: Record<string, string>) => () =>
    void router.push({ name, ...(params && { params }) })

  /** Opens a part of the pane beside the week; with no channel selected, on all. */
  function pane(which: 'channel' | 'disk') {
    if (which === 'channel' && !hand.selection.length)
      hand.show(site.plan!.channels.filter((c) => !c.noCamera).map((c) => c.id))
    hand.panel = which
    void router.push({ name: 'week' })
  }

  const pages = computed<Command[]>(() => [
    { kind: 'page', name: 'All sites', run: go('sites') },
    { kind: 'page', name: 'New site', run: go('new') },
    ...(site.plan
      ? known.flatMap((p) =>
          (p.parts ?? [{ part: undefined, title: p.title }]).map((part, i) => ({
            kind: 'page' as const,
            name: part.title,
            also: synonyms[part.title],
            hint: i ? undefined : `Alt+Shift+${p.key}`,
            run: go(p.name, part.part ? { part: part.part } : undefined),
          })),
        )
      : []),
  ])

  const channels = computed<Command[]>(() =>
    (site.plan?.channels ?? []).map((c) => ({
      kind: 'channel',
      name: c.name,
      hint: `channel ${c.number}${c.group ? `, ${c.group}` : ''}`,
      run: () => {
        hand.show([c.id])
        void router.push({ name: 'week' })
      },
    })),
  )

  const duties = computed<Command[]>(() =>
    (site.plan?.duties ?? []).map((d) => ({
      kind: 'duty',
      name: `Pick “${d.name}”`,
      hint: 'to paint with',
      run: () => (hand.picked = d.id),
    })),
  )

  const weeks = computed<Command[]>(() =>
    hand.selection.length
      ? (site.plan?.weeks ?? []).map((w) => ({
          kind: 'week',
          name: `Follow “${w.name}”`,
          hint: count(hand.selection.length, 'channel'),
          run: () => site.change([{ followWeek: { channels: hand.selection, week: w.id } }]),
        }))
      : [],
  )

  const acts = computed<Command[]>(() => {
    const paintable = hand.selection.filter((id) => typeof site.channels.get(id)?.week !== 'string')
    return [
      ...(site.undoes ? [{ name: `Undo: ${site.undoes}`, hint: 'Ctrl+Z', run: () => void site.step('undo') }] : []),
      ...(site.redoes ? [{ name: `Redo: ${site.redoes}`, hint: 'Ctrl+Y', run: () => void site.step('redo') }] : []),
      ...(site.plan
        ? [
            {
              name: 'Select all channels',
              run: () => hand.show(site.plan!.channels.filter((c) => !c.noCamera).map((c) => c.id)),
            },
          ]
        : []),
      ...(paintable.length
        ? [
            {
              name: `Paint the whole week: ${site.duties.get(hand.duty)?.name}`,
              hint: count(paintable.length, 'channel'),
              run: () =>
                site.change(
                  [{ paint: { channels: paintable, hours: [{ from: '00:00', to: '24:00' }], duty: hand.duty } }],
                  { channels: paintable, spans: [{ from: 0, to: WEEK }], duty: hand.duty },
                ),
            },
          ]
        : []),
      ...(site.plan
        ? [
            { name: 'Required days', also: 'retention keep how long storage time', run: () => pane('channel') },
            {
              name: 'Seconds before and after an event',
              also: 'pre-record post-record pre-event post-event buffer pre post alarm',
              run: () => pane('channel'),
            },
            { name: 'Drives and what is on them', also: 'disk storage raid capacity full', run: () => pane('disk') },
          ]
        : []),
      ...(site.plan
        ? dayNames.map((d, i) => ({
            name: `Look closer at ${d}`,
            run: () => ((hand.day = i), void router.push({ name: 'week' })),
          }))
        : []),
      ...(site.plan
        ? [
            { name: 'The whole week', hint: '0', run: () => (hand.day = undefined) },
            { name: 'Export the plan file', run: () => location.assign(`/api/plans/${site.planId}/file`) },
            { name: 'Export the plan with its pictures', run: () => location.assign(`/api/plans/${site.planId}/zip`) },
          ]
        : []),
      ...(site.plan
        ? [
            {
              name: 'Copy a link to this',
              also: 'address url share bookmark',
              hint: 'Alt+Shift+L',
              run: () =>
                document.dispatchEvent(new KeyboardEvent('keydown', { altKey: true, shiftKey: true, code: 'KeyL' })),
            },
          ]
        : []),
      { name: 'Light or dark', run: toggle },
      {
        name: 'Times and numbers',
        also: 'clock 12 24 hours am pm decimal comma thousands first day of the week sunday monday format locale settings',
        run: () => void askHabits(),
      },
      { name: 'Keys, gestures and words', also: 'help glossary shortcuts meaning', hint: '?', run: help },
    ].map((a) => ({ kind: 'act' as const, ...a }))
  })

  /** Commands that have every word, those whose name begins with them first. */
  function find(text: string): Command[] {
    const words = text.toLowerCase().split(/\s+/).filter(Boolean)
    const all = [...channels.value, ...pages.value, ...acts.value, ...duties.value, ...weeks.value]
    if (!words.length) return [...pages.value, ...acts.value].slice(0, 14)
    return all
      .filter((c) => words.every((w) => `${c.name} ${c.hint ?? ''} ${c.also ?? ''}`.toLowerCase().includes(w)))
      .sort(
        (a, b) =>
          Number(b.name.toLowerCase().startsWith(words[0]!)) - Number(a.name.toLowerCase().startsWith(words[0]!)),
      )
      .slice(0, 14)
  }

  return { find }
}
