import { computed, shallowRef } from 'vue'

import { again } from './again'
import { api } from './client'
import type {
  Activity,
  AlarmInput,
  Area,
  Detection,
  Offsite,
  Output,
  Pool,
  Rate,
  Stills,
  Stream,
  StreamName,
  Takes,
} from './types'
import type { components } from './schema'

type PlanFormat = components['schemas']['PlanFormat']
type Choice = components['schemas']['Choice']

/** Values and limits of the members of a plan, as the core has them; read once. */
const format = shallowRef<PlanFormat>()

export async function loadFormat() {
  const { data } = await again(() => api.GET('/api/format'), 10).catch(() => ({ data: undefined }))
  if (data) format.value = data
}

/** Which Wakefield serves this page; empty before it is known. */
export const version = computed(() => format.value?.version ?? '')

/** What a member may be, by its path: "channels.preSeconds". */
export const limitsOf = (member: string) => format.value?.limits[member] ?? {}

const pairs = <T extends string>(list: Choice[] | undefined) => (list ?? []).map((c) => [c.id as T, c.name] as const)

/** Units that people type behind a number, in small letters, by the unit that is wanted: what one of them is. */
export const unitsOf = (unit: string): Record<string, number> => format.value?.units[unit] ?? {}

/** The values of members that are chosen, with the names that people have for them. */
export const choices = {
  codecs: computed(() => pairs<Stream['codec']>(format.value?.choices.codecs)),
  layouts: computed(() => pairs<Pool['layout']>(format.value?.choices.layouts)),
  rateKinds: computed(() => pairs<Rate['kind']>(format.value?.choices.rateKinds)),
  ratesKnown: computed(() => pairs<NonNullable<Rate['known']>>(format.value?.choices.ratesKnown)),
  activitiesKnown: computed(() => pairs<Activity['known']>(format.value?.choices.activitiesKnown)),
  scenes: computed(() => pairs<NonNullable<Rate['scene']>>(format.value?.choices.scenes)),
  detectors: computed(() => pairs<NonNullable<Detection['by']>>(format.value?.choices.detectors)),
  smallestOf: computed(() => pairs<NonNullable<Area['smallest']>['of']>(format.value?.choices.smallestOf)),
  contacts: computed(() => pairs<NonNullable<AlarmInput['contact']>>(format.value?.choices.contacts)),
  outputKinds: computed(() => pairs<Output['kind']>(format.value?.choices.outputKinds)),
  stillModes: computed(() => pairs<Stills['mode']>(format.value?.choices.stillModes)),
  copies: computed(() => pairs<NonNullable<Offsite['copy']>>(format.value?.choices.copies)),
  layers: computed(() => pairs<NonNullable<Takes['layers']>>(format.value?.choices.layers)),
  areasTaken: computed(() => pairs<NonNullable<Takes['areas']>>(format.value?.choices.areasTaken)),
  copiesTaken: computed(() => pairs<NonNullable<Takes['copies']>[number]>(format.value?.choices.copiesTaken)),
  takes: computed(() => format.value?.choices.takes ?? []),
  objects: computed(() => pairs<string>(format.value?.choices.objects)),
  streams: computed(() => pairs<StreamName>(format.value?.choices.streams)),
  qualities: computed(() => {
    const list = format.value?.choices.qualities ?? []
    const middle = list[(list.length - 1) / 2]
    const named = (q: number) =>
      q === list[0] ? `${q}, least` : q === list.at(-1) ? `${q}, best` : q === middle ? `${q}, medium` : String(q)
    return list.map((q) => [q, named(q)] as const)
  }),
  sizes: computed(() => format.value?.choices.sizes ?? []),
}

/** The name of a value among its choices; the value where it is none of them. */
export const nameOf = <T extends string>(list: readonly (readonly [T, string])[], id: T) =>
  list.find(([value]) => value === id)?.[1] ?? id
