import { useSite } from '../../site/useSite'
import { makeThing, newThings, type NewThing } from './newThings'
import type { useEdits } from '../parts/useEdits'

/** Adds things, each under a name of its own; says which it was. */
export function useNew(edits: ReturnType<typeof useEdits>) {
  const site = useSite()
  return async function add(what: NewThing): Promise<string | undefined> {
    const { kind, name } = newThings[what]
    const list = { alarm: 'alarmInputs', button: 'callButtons', message: 'messages', output: 'outputs' } as const
    const there = what === 'monitor' ? site.plan!.monitors : site.plan![list[what]]
    const taken = new Set((there ?? []).map((x) => x.name))
    let called: string = name
    for (let n = 2; taken.has(called); n++) called = `${name} ${n}`
    const [id] = (await site.freeIds(kind, called)) ?? []
    if (!id) return undefined
    const made = makeThing(what, site.plan!, id, called)
    if ('problem' in made) {
      edits.complain(made.problem)
      return undefined
    }
    edits.change(made.edit)
    return made.key
  }
}
