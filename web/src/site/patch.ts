import type { Operation } from 'fast-json-patch'
import { applyPatch } from 'fast-json-patch/module/core.mjs'

import type { Plan } from '../api/types'

/**
 * The plan after a JSON Patch. What the patch does not touch stays the very same object, so that only what changed
 * is drawn again.
 */
export function patched(plan: Plan, patch: Operation[]): Plan {
  // Patches copy what they are made on: only what they touch is handed to them, of channels each by itself.
  const inChannels = new Map<number, Operation[]>()
  const rest: Operation[] = []
  const each = patch.every((operation) => !('from' in operation) && !/^[/]channels([/][^/]*)?$/.test(operation.path))
  for (const operation of patch) {
    const [, , at, within] = /^([/]channels[/](\d+))([/].*)$/.exec(operation.path) ?? []
    if (!each || !within || !plan.channels[Number(at)]) rest.push(operation)
    else inChannels.set(Number(at), [...(inChannels.get(Number(at)) ?? []), { ...operation, path: within }])
  }
  const members = new Set(rest.map((operation) => operation.path.split('/')[1]!))
  const kept = Object.fromEntries(Object.entries(plan).filter(([name]) => !members.has(name)))
  const part = Object.fromEntries(Object.entries(plan).filter(([name]) => members.has(name))) as Partial<Plan> as Plan
  const next = { ...applyPatch(part, rest, false, false).newDocument, ...kept }
  if (inChannels.size)
    next.channels = next.channels.map((channel, i) => {
      const operations = inChannels.get(i)
      return operations ? applyPatch(channel, operations, false, false).newDocument : channel
    })
  return next
}
