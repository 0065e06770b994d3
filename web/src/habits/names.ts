import { namesIn } from './write'

/*
 * Names, notes and addresses are somebody's own words: what looks like a number or a time in them is not written anew.
 * They are taken from what the server answers, where members with these names hold them.
 */
const MEMBERS =
  'name|names|group|customer|address|place|notes?|author|by|who|subject|file|fileName|label|firmware|hardware|model|serial'
const owned = new RegExp(`"(?:${MEMBERS})":(?:"((?:[^"\\\\]|\\\\.)*)"|\\[((?:"(?:[^"\\\\]|\\\\.)*",?)*)\\])`, 'g')
const quoted = /"(?:[^"\\]|\\.)*"/g
const looksWritten = /\d[.:\u202f]\d/
const hasLetter = /\p{L}/u

const known = new Set<string>()
let found: RegExp | undefined
let size = 0

/** Takes the names out of an answer. */
export function learn(json: string) {
  const take = (literal: string) => {
    if (!looksWritten.test(literal) || !hasLetter.test(literal)) return
    const name = JSON.parse(literal) as string
    if (name.length <= 400) known.add(name)
  }
  if (!looksWritten.test(json)) return
  for (const [, one, list] of json.matchAll(owned)) {
    if (one !== undefined) take(`"${one}"`)
    else for (const [item] of list!.matchAll(quoted)) take(item)
  }
}

/** What finds the names that are known; nothing where none of them could be taken for a number or a time. */
export function names(): RegExp | undefined {
  if (known.size !== size) {
    found = namesIn(known)
    size = known.size
  }
  return found
}
