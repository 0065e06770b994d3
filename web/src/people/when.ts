/** A moment as people read it: "29 Nov 2026, 16:19". */
const format = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' })
export const when = (moment: string | null | undefined) => (moment ? format.format(new Date(moment)) : 'never')
