import type { Operation } from 'fast-json-patch'
import { applyPatch } from 'fast-json-patch/module/core.mjs'

import type { Plan } from '../api/types'

/**
 * The plan after a JSON Patch. What the patch does not touch stays the very same object, so that only what changed
 * is drawn again.
 */
export function patched(plan: Plan, patch: Operation[]): Plan {
  const touched = patch.map((operation) => operation.path.split('/').slice(1))
  const members = new Set(touched.map((path) => path[0]!))
  const kept = Object.fromEntries(Object.entries(plan).filter(([name]) => !members.has(name)))
  // Patches copy what they are made on: only what they touch is handed to them.
  const part = Object.fromEntries(Object.entries(plan).filter(([name]) => members.has(name))) as Partial<Plan> as Plan
  const next = applyPatch(part, patch, false, false).newDocument
  const whole = touched.some((path) => path[0] === 'channels' && path.length < 3) // channels came or went
  if (members.has('channels') && !whole) {
    const changed = new Set(touched.filter((path) => path[0] === 'channels').map((path) => Number(path[1])))
    next.channels = next.channels.map((c, i) => (changed.has(i) ? c : plan.channels[i]!))
  }
  return { ...next, ...kept }
}
