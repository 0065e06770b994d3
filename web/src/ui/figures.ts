/** Figures as the pages show them: three significant digits, with their unit. */

const formats = new Map<number, Intl.NumberFormat>()

/** Writes a number with three significant digits, or more where they stand before the point. */
export function three(value: number): string {
  const size = Math.abs(value)
  return fixed(value, size >= 99.95 || size === 0 ? 0 : size >= 9.995 ? 1 : 2)
}

/** Writes a number with so many decimals, its thousands apart. */
function fixed(value: number, digits: number): string {
  let format = formats.get(digits)
  if (!format) {
    format = new Intl.NumberFormat('en-GB', {
      minimumFractionDigits: digits,
      maximumFractionDigits: digits,
      useGrouping: true,
    })
    formats.set(digits, format)
  }
  return format.format(value).replace('-', '−').replace(/,/g, '\u202f')
}

/** Beyond this days are no figure that anybody plans with. */
const CENTURY = 36_525

/** Writes days kept in full. */
export function daysInWords(value: number): string {
  return value > CENTURY ? 'over 100 years' : `${three(value)} days`
}

/** Writes days kept; footage that nothing takes away has no number. */
export function days(value: number | null | undefined): string {
  return value == null ? 'no limit' : value > CENTURY ? '> 100 y' : `${three(value)} d`
}

/** Writes a count with its thousands apart. */
export const whole = (value: number) => value.toLocaleString('en-GB').replace(/,/g, '\u202f')

/** Writes a change with its sign, empty where it would show as none. */
export function change(value: number): string {
  const text = three(Math.abs(value))
  if (Number(text.replace(/\s/g, '')) === 0) return ''
  return (value > 0 ? '+' : '−') + text
}

/** Writes GB, as TB with two decimals from a thousand on. */
export function gigabytes(value: number): string {
  return Math.abs(value) >= 1000 ? `${fixed(value / 1000, 2)} TB` : `${three(value)} GB`
}

/** Writes a change of GB with its sign, empty where it would show as none. */
export function changeGB(value: number): string {
  const text = change(value)
  return text && `${text[0]}${gigabytes(Math.abs(value))}`
}

/** Writes GB of what may be little: MB below a tenth. */
export function amount(value: number): string {
  return Math.abs(value) < 0.0995 ? `${three(value * 1000)} MB` : gigabytes(value)
}

/** Writes a bitrate. */
export function kbps(value: number): string {
  return value >= 10000
    ? `${three(value / 1000)} Mbit/s`
    : `${Math.round(value).toLocaleString('en-GB').replace(/,/g, '\u202f')} kbit/s`
}

/** "1 channel", "6 channels". */
export function count(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`
}

/** How much a change saves where that is doubtful, to stand behind its words. */
export function saves(s: { leastPercent: number; mostPercent: number } | undefined): string {
  if (!s) return ''
  return `, saves ${Math.round(s.leastPercent)} to ${Math.round(s.mostPercent)} %`
}

/** Words as a file may be called on any system. */
export const fileWords = (text: string) =>
  text
    .replace(/[/\\:*?"<>|\p{Cc}]/gu, '-')
    .trim()
    .slice(0, 60)
