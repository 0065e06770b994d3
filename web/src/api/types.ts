import type { components } from './schema'

type Schemas = components['schemas']

export type Plan = Schemas['Plan']
export type Channel = Schemas['Channel']
export type Duty = Schemas['Duty']
export type Activity = Schemas['Activity']
export type Recorder = Schemas['Recorder']
export type Pool = Schemas['Pool']
export type Stream = Schemas['Stream']
export type Rate = Schemas['Rate']
export type Hours = Schemas['Hours']
export type Weekday = NonNullable<Hours['days']>[number]
export type Edit = Schemas['Edit']
export type View = Schemas['View']
export type Answer = Schemas['Answer']
export type Draft = Schemas['Draft']
export type Figures = Schemas['EstimatedChannel']
export type PoolFigures = Schemas['EstimatedPool']
export type RecorderFigures = Schemas['EstimatedRecorder']
export type Verdict = Schemas['EstimatedVerdict']
export type Ribbon = Schemas['Ribbon']
export type Tide = Schemas['Tide']
export type Revision = Schemas['Revision']
export type YearFigures = Schemas['EstimatedYear']
export type Unknown = Schemas['EstimatedUnknown']
export type YearVerdict = Schemas['YearVerdict']
export type Problem = Schemas['ErrorModel']

/** The problem of a change made on an old version. */
export interface Conflict extends Problem {
  version: number
  since: Revision[]
  /** How many changes there are before those. */
  more: number
}
export type Finding = Schemas['Finding']
export type FixEffect = Schemas['FixEffect']
export type Kind = Schemas['Kind']
export type Week = Schemas['Week']
export type SpecialDay = Schemas['SpecialDay']
export type Table = Schemas['Table']
export type TableRow = Schemas['TableRow']
export type TableColumn = Schemas['TableColumn']
export type ReadTable = Schemas['ReadTable']
export type ReadLog = Schemas['ReadLog']
export type LineAs = ReadLog['kinds'][number]['as']
export type ReadDates = Schemas['ReadDates']
export type CalendarWeek = Schemas['ReadCalendarWeek']
export type SiteLine = Schemas['SiteLine']
export type SiteView = Schemas['SiteView']
export type Rail = Schemas['NamedRail']['rail']
export type Rates = Schemas['EstimatedRates']
export type SiteVerdict = Schemas['SiteVerdict']
export type Opening = Schemas['Opening']
export type OpeningDraft = Schemas['OpeningDraft']
export type Beginnings = Schemas['Beginnings']
export type Measured = Schemas['Measured']
export type WrittenHours = Schemas['WrittenHours']
export type Curve = Schemas['EstimatedCurve']
export type Scenario = Schemas['EstimatedScenario']
export type Order = NonNullable<Answer['order']>
export type SetCells = NonNullable<Edit['setCells']>
