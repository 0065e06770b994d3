import { count } from '../../ui/figures'

/** How long ago something was, in words. */
export function ago(at: string, now = Date.now()): string {
  const minutes = Math.max(0, Math.round((now - Date.parse(at)) / 60000))
  if (minutes < 1) return 'just now'
  if (minutes < 60) return `${minutes} min ago`
  const hours = Math.round(minutes / 60)
  if (hours < 48) return `${count(hours, 'hour')} ago`
  return `${count(Math.round(hours / 24), 'day')} ago`
}
