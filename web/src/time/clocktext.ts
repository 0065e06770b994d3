/** Reads a time of day as people type it: "16:20", "16.20", "1620", "4:20 pm", "noon"; as "16:20", or undefined. */
export function readTime(text: string): string | undefined {
  const rest = text.trim().toLowerCase().replace(/\s+/g, ' ')
  if (rest === 'noon') return '12:00'
  if (rest === 'midnight') return '00:00'
  const m = /^(\d{1,2})(?:[:.h]?(\d{2}))?(?::\d{2})? ?(?:h|([ap])\.?m\.?)?$/.exec(rest)
  if (!m) return undefined
  let hour = Number(m[1])
  const minute = Number(m[2] ?? 0)
  if (m[3]) {
    if (hour < 1 || hour > 12) return undefined
    hour = (hour % 12) + (m[3] === 'p' ? 12 : 0)
  }
  if (hour > 23 || minute > 59) return undefined
  return `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`
}
