import type { components } from '../api/schema'

type Figures = components['schemas']['CompanyFigures']

/** Rules are called by words with hyphens between them. */
export const ruleName = (rule: string) => rule.replaceAll('-', ' ')

export const share = (k: { fromPercent: number; toPercent?: number | null }) =>
  k.toPercent == null ? `${k.fromPercent} % and more` : `${k.fromPercent} to ${k.toPercent} %`

/** All of the page as rows, for a table program. */
function rowsOf(f: Figures): (string | number)[][] {
  return [
    ['Sites', f.sites],
    ['Channels', f.channels],
    ['Usable storage, GB', f.usableGB],
    ['GB a day', f.gigabytesPerDay],
    ['Sites short of their days', f.short],
    [],
    ['Days kept, of those required', 'Sites'],
    ...f.kept.map((k) => [share(k), k.sites]),
    ['nothing required', f.free],
    [],
    ['Finding', 'Severity', 'Sites', 'Open', 'Accepted'],
    ...f.found.map((o) => [ruleName(o.rule), o.severity, o.sites, o.open, o.accepted]),
    [],
    ['Accepted by', 'Findings', 'Sites'],
    ...f.accepted.map((a) => [a.by, a.findings, a.sites]),
    [],
    ['Customer', 'Sites', 'Channels', 'Usable storage, GB', 'Short'],
    ...f.customers.map((c) => [c.customer || 'not named', c.sites, c.channels, c.usableGB, c.short]),
  ]
}

/** A cell of CSV; what a table program would take for a formula is text. */
function cell(v: string | number) {
  const text = typeof v === 'string' && /^[=+\-@]/.test(v) ? `'${v}` : String(v)
  return /[",\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text
}

/** The page as a CSV file, to be fetched. */
export const fileOf = (f: Figures) =>
  `data:text/csv;charset=utf-8,${encodeURIComponent(
    `\ufeff${rowsOf(f)
      .map((r) => r.map(cell).join())
      .join('\r\n')}\r\n`,
  )}`
