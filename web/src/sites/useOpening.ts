import { useDebounceFn } from '@vueuse/core'
import { computed, reactive, ref, watch } from 'vue'
import { useRouter } from 'vue-router'

import { again, newKey } from '../api/again'
import { ask } from '../api/ask'
import { api, inWords } from '../api/client'
import type { Opening, OpeningDraft, Problem } from '../api/types'
import { readSize } from '../ui/size'

/** The names in what was pasted: one a line, or cells of a row. */
export const namesIn = (text: string) =>
  text
    .split(/\r?\n|\t/)
    .map((n) => n.trim())
    .filter(Boolean)

/** What is written of a site that is not made yet, the first verdict on it, and making it. */
export function useOpening() {
  const router = useRouter()
  const opening = reactive<Opening>({
    name: '',
    customer: '',
    timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    recorder: 'Recorder',
    channels: 16,
    ingestMbps: 160,
    drives: 2,
    terabytes: 4,
    layout: 'raid1',
    cameras: 12,
    codec: 'h265',
    width: 2560,
    height: 1440,
    fps: 12,
    activity: 'hall',
    duty: 'motion',
    keepDays: 30,
  })
  const draft = ref<OpeningDraft>()
  const problems = ref<Record<string, string>>({})
  const making = ref(false)

  /** Names the members of the opening that a problem is about; paths of the plan are those of the site. */
  function blame(problem: Problem) {
    const errors = problem.errors ?? []
    const member = (location = '') => location.replace('body.', '').replace('site.', '')
    problems.value = Object.fromEntries(errors.map((e) => [member(e.location), e.message ?? '']))
    if (!errors.length) problems.value = { all: inWords(problem) }
  }

  /** Counts what was written; the verdict belongs to the page when it is the newest one's. */
  const written = ref(0)
  const judged = ref(0)
  const isStale = computed(() => judged.value !== written.value)

  const judge = useDebounceFn(async () => {
    const asked = written.value
    const body = { ...opening, name: opening.name || 'New site' }
    const told = await ask(api.POST('/api/openings/draft', { body }))
    if (asked !== written.value) return // a newer one is on its way
    judged.value = asked
    draft.value = told.data
    problems.value = told.status ? {} : { all: told.problem }
    if (told.error) blame(told.error)
  }, 120)

  let key = newKey() // what was written anew is another site
  watch(
    opening,
    () => {
      key = newKey()
      written.value++
      void judge()
    },
    { immediate: true, deep: true },
  )

  const size = computed(() => `${opening.width}×${opening.height}`)
  function setSize(text: string) {
    const read = readSize(text)
    if ('why' in read) problems.value = { ...problems.value, size: read.why }
    else Object.assign(opening, read)
  }

  /** Names that are given say how many cameras there are. */
  function setNames(names: string[]) {
    opening.names = names.length ? names : undefined
    if (!names.length) return
    const others = (opening.others ?? []).reduce((n, o) => n + o.cameras, 0)
    opening.cameras = Math.max(1, names.length - others)
    const room = opening.channels * (opening.recorders ?? 1)
    if (names.length > room) opening.channels = Math.ceil(names.length / (opening.recorders ?? 1))
  }

  /** Adds cameras of another kind, like those before but for what they look at. */
  function addOthers() {
    const { width, height, fps } = opening
    const group = ['Yard', 'Doors', 'Street'].find((g) => !opening.others?.some((o) => o.group === g)) ?? 'Others'
    opening.group ??= 'Indoor'
    opening.others = [...(opening.others ?? []), { group, cameras: 4, width, height, fps, activity: 'loading' }]
  }

  /** A bitrate that is typed goes with the other one, as it is assumed. */
  function setRate(which: 'idleKbps' | 'activeKbps', kbps: number) {
    const a = draft.value?.assumed
    if (!kbps || !a) Object.assign(opening, { idleKbps: undefined, activeKbps: undefined })
    else {
      const idleKbps = opening.idleKbps ?? Math.round(a.idleKbps)
      const activeKbps = opening.activeKbps ?? Math.round(a.activeKbps)
      Object.assign(opening, { idleKbps, activeKbps, [which]: kbps })
    }
  }

  async function make() {
    if (!opening.name.trim()) {
      problems.value = { ...problems.value, name: 'give the site a name' }
      return
    }
    making.value = true
    const params = { header: { 'Idempotency-Key': key } }
    const told = await ask(again(() => api.POST('/api/openings', { params, body: { ...opening } })))
    making.value = false
    if (told.data) await router.push(`/sites/${told.data.id}/kit/site`)
    else if (told.error) blame(told.error)
    else problems.value = { all: `${told.problem} Nothing was made; what you wrote is still here.` }
  }

  return { opening, draft, problems, making, isStale, size, setSize, setNames, addOthers, setRate, make }
}
