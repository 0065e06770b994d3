/** Units that people type behind a number, by the unit that a field is in: what one of them is. */
const of: Record<string, Record<string, number>> = {
  'kbit/s': {
    'kbit/s': 1,
    kbps: 1,
    kbit: 1,
    k: 1,
    'mbit/s': 1000,
    mbps: 1000,
    mbit: 1000,
    m: 1000,
    'gbit/s': 1e6,
    gbps: 1e6,
  },
  'Mbit/s': { 'mbit/s': 1, mbps: 1, mbit: 1, 'kbit/s': 0.001, kbps: 0.001, 'gbit/s': 1000, gbps: 1000 },
  s: { s: 1, sec: 1, seconds: 1, min: 60, minutes: 60, h: 3600, hours: 3600 },
  d: { d: 1, day: 1, days: 1, week: 7, weeks: 7 },
  GB: { gb: 1, tb: 1000, mb: 0.001 },
  TB: { tb: 1, gb: 0.001 },
  'TB/y': { 'tb/y': 1, tb: 1 },
  'MB/s': { 'mb/s': 1, 'gb/s': 1000 },
  kB: { kb: 1, mb: 1000 },
  m: { m: 1, cm: 0.01 },
  '/s': { '/s': 1, fps: 1 },
}
of['days'] = of['d']!

/** Takes the unit off a text, and says by what its number is multiplied; nothing for a unit that is not the field's. */
export function takeUnit(text: string, unit = ''): { number: string; times: number } | undefined {
  const m = /^(.*?[\d.,])\s*([^\d\s.,].*)?$/.exec(text.trim())
  const said = m?.[2]?.trim().toLowerCase()
  if (!m || !said) return { number: text, times: 1 }
  if (said === unit.toLowerCase()) return { number: m[1]!, times: 1 }
  const times = of[unit]?.[said]
  return times === undefined ? undefined : { number: m[1]!, times }
}
