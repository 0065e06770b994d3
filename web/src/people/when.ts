import { moment } from '../time/dates'

/** A moment as people read it: "29 Nov 2026, 16:19". */
export const when = (at: string | null | undefined) => (at ? moment(at) : 'never')
