import type { Edit, Plan } from '../../api/types'

type Made = { edit: Edit; key: string } | { problem: string }

/** What a new thing of each kind is before anything is said of it, and what its id is sought by. */
export const newThings = {
  alarm: { kind: 'alarm input', name: 'Alarm input' },
  button: { kind: 'call button', name: 'Button' },
  message: { kind: 'message', name: 'Receiver' },
  output: { kind: 'output', name: 'Output' },
  monitor: { kind: 'monitor', name: 'Monitor' },
} as const

export type NewThing = keyof typeof newThings

/** The edit that adds a thing under an id and name; a sentence where the plan lacks what it needs. */
export function makeThing(what: NewThing, plan: Plan, id: string, name: string): Made {
  const recorder = plan.recorders[0]?.id
  const activity = plan.activities?.[0]?.id
  if ((what === 'alarm' || what === 'output') && !recorder)
    return { problem: 'There is no recorder to wire it to yet: add one in Kit, Recorders and drives.' }
  switch (what) {
    case 'alarm':
      if (!activity)
        return { problem: 'Nothing happens at this site yet: say in Kit, Activities, how often a contact opens.' }
      return {
        edit: { setAlarmInput: { alarmInput: { id, name, recorder: recorder!, activity } } },
        key: `alarm ${id}`,
      }
    case 'button': {
      const callButton = { id, name, pressesPerWeek: 0.5, holdSeconds: 300, records: [] }
      return { edit: { setCallButton: { callButton } }, key: `button ${id}` }
    }
    case 'message':
      return {
        edit: { setMessage: { message: { id, name, to: name, atMostEverySeconds: 600 } } },
        key: `message ${id}`,
      }
    case 'output': {
      const output = { id, name, recorder: recorder!, kind: 'relay' as const, holdSeconds: 10 }
      return { edit: { setOutput: { output } }, key: `output ${id}` }
    }
    case 'monitor':
      return { edit: { setMonitor: { monitor: { id, name, dwellSeconds: 15 } } }, key: `monitor ${id}` }
  }
}
