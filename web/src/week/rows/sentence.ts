import { count } from '../../ui/figures'
import type { Channel, Duty, Ribbon } from '../../api/types'
import { clock, DAY, dayNames, WEEK } from '../../time/week'

/** Says a channel's week for those who hear it: "Gangway A. Monday to Friday: Motion only." */
export function weekInWords(channel: Channel, ribbon: Ribbon | undefined, duties: Map<string, Duty>): string {
  if (channel.noCamera) return `${channel.name}: no camera`
  if (!ribbon) return channel.name
  const days = dayNames.map((_, day) => dayInWords(day, ribbon, duties))
  const parts: string[] = []
  for (let first = 0; first < 7;) {
    let last = first
    while (last < 6 && days[last + 1] === days[first]) last++
    parts.push(`${first === last ? dayNames[first] : `${dayNames[first]} to ${dayNames[last]}`}: ${days[first]}`)
    first = last + 1
  }
  const deaf = ribbon.deaf.reduce((sum, s) => sum + (s.to > s.from ? s.to - s.from : s.to - s.from + WEEK), 0)
  if (deaf)
    parts.push(`For ${count(Math.round(deaf / 6) / 10, 'hour')} a week it waits for motion that nothing reports`)
  return `${channel.name}. ${parts.join('. ')}`
}

function dayInWords(day: number, ribbon: Ribbon, duties: Map<string, Duty>): string {
  const [start, end] = [day * DAY, (day + 1) * DAY]
  const runs = ribbon.rail
    .map((r, i) => ({ duty: duties.get(r.duty)?.name ?? r.duty, from: r.from, to: ribbon.rail[i + 1]?.from ?? WEEK }))
    .filter((r) => r.from < end && r.to > start)
  if (runs.length === 1) return runs[0]!.duty
  return runs
    .map((r) => `${r.duty} ${clock(Math.max(0, r.from - start))} to ${clock(Math.min(DAY, r.to - start))}`)
    .join(', ')
}
