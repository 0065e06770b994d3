<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { computed, onMounted, reactive, ref, watch } from 'vue'
import { useRouter } from 'vue-router'

import { again, newKey } from '../api/again'
import { api, inWords } from '../api/client'
import type { Beginnings, Opening, OpeningDraft, Problem } from '../api/types'
import TopBar from '../shell/TopBar.vue'
import ChoiceField from '../ui/ChoiceField.vue'
import { count, daysInWords, gigabytes, three } from '../ui/figures'
import NumberField from '../ui/NumberField.vue'
import TermTip from '../ui/TermTip.vue'
import TextField from '../ui/TextField.vue'
import { explain } from '../duties/explain'

/** From an empty page to a first verdict: the few things that are known before the site was seen. */
const router = useRouter()
const names = ref('')
const opening = reactive<Opening>({
  name: '', customer: '', timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone, recorder: 'Recorder', channels: 16, ingestMbps: 160,
  drives: 2, terabytes: 4, layout: 'raid1', cameras: 12, codec: 'h265', width: 2560, height: 1440, fps: 12, activity: 'hall', duty: 'motion', keepDays: 30,
})
const beginnings = ref<Beginnings>()
const draft = ref<OpeningDraft>()
const problems = ref<Record<string, string>>({})
const making = ref(false)
const nameless = ref(false)
const zones = Intl.supportedValuesOf('timeZone')
const layouts = [['span', 'no RAID'], ['raid0', 'RAID 0'], ['raid1', 'RAID 1'], ['raid5', 'RAID 5'], ['raid6', 'RAID 6'], ['raid10', 'RAID 10']] as const
const codecs = [['h264', 'H.264'], ['h265', 'H.265'], ['av1', 'AV1'], ['mjpeg', 'MJPEG']] as const
const sizes = ['1280×720', '1920×1080', '2560×1440', '2688×1520', '3072×2048', '3840×2160'] as const

onMounted(async () => {
  const { data } = await api.GET('/api/beginnings').catch(() => ({ data: undefined }))
  beginnings.value = data
})

/** Names the members of the opening that a problem is about; paths of the plan are those of the site. */
function blame(problem: Problem) {
  const errors = problem.errors ?? []
  problems.value = Object.fromEntries(errors.map((e) => [(e.location ?? '').replace('body.', '').replace('site.', ''), e.message ?? '']))
  if (!errors.length) problems.value = { all: inWords(problem) }
}

/** Counts what was written; the verdict belongs to the page when it is the newest one's. */
const written = ref(0)
const judged = ref(0)

const judge = useDebounceFn(async () => {
  const asked = written.value
  let data: OpeningDraft | undefined
  let refused: Problem | undefined
  let away = false
  try {
    const answer = await api.POST('/api/openings/draft', { body: { ...opening, name: opening.name || 'New site' } })
    data = answer.data
    refused = answer.error as Problem | undefined
  } catch {
    away = true
  }
  if (asked !== written.value) return // a newer one is on its way
  judged.value = asked
  draft.value = data
  problems.value = away ? { all: 'The server does not answer.' } : {}
  if (refused) blame(refused)
}, 120)
watch(opening, () => { written.value++; judge() }, { immediate: true, deep: true })

let key = newKey() // what was written anew is another site
watch(opening, () => (key = newKey()), { deep: true })

const size = computed(() => `${opening.width}×${opening.height}`)
function setSize(text: string) {
  const m = /^(\d{2,5})\s*[x×*]\s*(\d{2,5})$/i.exec(text)
  if (m) Object.assign(opening, { width: Number(m[1]), height: Number(m[2]) })
  else problems.value = { ...problems.value, size: 'Not a picture size: use 1920×1080' }
}

async function make() {
  if (!opening.name.trim()) {
    nameless.value = true
    return
  }
  making.value = true
  try {
    const { data, error } = await again(() => api.POST('/api/openings', { params: { header: { 'Idempotency-Key': key } }, body: { ...opening } }))
    if (data) await router.push(`/sites/${data.id}`)
    else blame(error as Problem)
  } catch {
    problems.value = { all: 'The server does not answer. Nothing was made; what you wrote is still here.' }
  } finally {
    making.value = false
  }
}

/** Names that are pasted, one a line, say how many cameras there are. */
function setNames(text: string) {
  names.value = text
  const list = text.split(/\r?\n|\t/).map((n) => n.trim()).filter(Boolean)
  opening.names = list.length ? list : undefined
  if (list.length) opening.cameras = list.length
  if (list.length > opening.channels) opening.channels = list.length
}

/** A bitrate that is typed goes with the other one, as it is assumed. */
function setRate(which: 'idleKbps' | 'activeKbps', kbps: number) {
  const a = draft.value?.assumed
  if (!kbps || !a) Object.assign(opening, { idleKbps: undefined, activeKbps: undefined })
  else Object.assign(opening, { idleKbps: opening.idleKbps ?? Math.round(a.idleKbps), activeKbps: opening.activeKbps ?? Math.round(a.activeKbps), [which]: kbps })
}

const v = computed(() => draft.value?.verdict)
const isShort = computed(() => v.value?.keptDays != null && v.value.requiredDays != null && v.value.keptDays < v.value.requiredDays)
const duties = computed(() => beginnings.value?.duties ?? [])
const p = (member: string) => problems.value[member]
</script>

<template>
  <div class="new">
    <TopBar />
    <main>
      <h1>A new site</h1>
      <p class="soft">What is known now is enough. Everything can be changed later, camera by camera.</p>
      <form class="columns" novalidate @submit.prevent>
        <div>
          <fieldset class="sheet">
            <legend>1 · Where</legend>
            <TextField label="Site" :value="opening.name" :problem="nameless ? 'give the site a name' : p('name')" @change="(name) => { opening.name = name; nameless = false }" />
            <TextField label="Customer" :value="opening.customer" @change="(customer) => (opening.customer = customer)" />
            <TextField label="Time zone" :value="opening.timeZone" :choices="zones" :problem="p('timeZone')" @change="(z) => (opening.timeZone = z)" />
          </fieldset>
          <fieldset class="sheet">
            <legend>2 · Recorder and drives</legend>
            <TextField label="Recorder" :value="opening.recorder" :problem="p('recorder')" @change="(v) => (opening.recorder = v)" />
            <NumberField whole label="Channels it has" :value="opening.channels" :min="1" :max="5000" data-field="channels" @change="(v) => (opening.channels = v)" />
            <NumberField label="Incoming bandwidth" unit="Mbps" :value="opening.ingestMbps" :min="0.1" :max="1000000" @change="(v) => (opening.ingestMbps = v)" />
            <NumberField whole label="Drives" :value="opening.drives" :min="1" :max="1000" data-field="drives" @change="(v) => (opening.drives = v)" />
            <NumberField label="Size of each" unit="TB" :value="opening.terabytes" :min="0.1" :max="1000" data-field="terabytes" @change="(v) => (opening.terabytes = v)" />
            <ChoiceField label="RAID level" :value="opening.layout" :choices="layouts" @change="(v) => (opening.layout = v)" />
          </fieldset>
          <fieldset class="sheet">
            <legend>3 · Cameras</legend>
            <NumberField whole label="Cameras" :value="opening.cameras" :min="1" :max="5000" data-field="cameras" @change="(v) => (opening.cameras = v)" />
            <p v-if="p('cameras')" class="short" role="alert">{{ p('cameras') }}</p>
            <ChoiceField label="Codec" :value="opening.codec" :choices="codecs" @change="(v) => (opening.codec = v)" />
            <TextField label="Picture" :value="size" :choices="sizes" :problem="p('size')" @change="setSize" />
            <NumberField label="Frames" unit="/s" :value="opening.fps" :min="0.1" :max="240" @change="(v) => (opening.fps = v)" />
            <ChoiceField v-if="beginnings" label="Most of them look at" :value="opening.activity" :choices="beginnings.activities.filter((a) => beginnings!.scenes.includes(a.id)).map((a) => [a.id, a.name] as const)" @change="(v) => (opening.activity = v)" />
            <details class="names">
              <summary>Names of the cameras{{ opening.names ? `: ${opening.names.length}` : '' }}</summary>
              <textarea :value="names" rows="5" aria-label="Names of the cameras, one a line" placeholder="Paste them here, one a line" data-test="names" @input="setNames(($event.target as HTMLTextAreaElement).value)" />
              <p v-if="p('names')" class="short" role="alert">{{ p('names') }}</p>
            </details>
          </fieldset>
        </div>
        <div>
          <fieldset class="sheet">
            <legend>4 · An opening week for all</legend>
            <label v-for="d in duties" :key="d.id" class="duty"><input v-model="opening.duty" type="radio" name="duty" :value="d.id" /> <span><b>{{ d.name }}</b> <span class="soft">{{ explain(d) }}</span></span></label>
            <NumberField label="Footage must be kept" none="none" unit="days" :value="opening.keepDays" :max="36500" data-field="days" @change="(v) => (opening.keepDays = v)" />
          </fieldset>
          <section class="sheet verdict" aria-live="polite" aria-label="First verdict" :aria-busy="judged !== written" data-test="first-verdict">
            <h2>First <TermTip word="verdict" /></h2>
            <template v-if="v">
              <p class="days" :class="{ short: isShort }"><b>{{ v.keptDays == null ? 'never overwritten' : daysInWords(v.keptDays) }}</b><template v-if="v.requiredDays != null"> kept of {{ v.requiredDays }} required</template></p>
              <p v-if="v.likelyDays" class="soft">Likely range (80 %): {{ three(v.likelyDays.low) }} to {{ daysInWords(v.likelyDays.high) }}; nothing is measured yet.</p>
              <dl class="figures">
                <dt>written a day</dt><dd>{{ gigabytes(v.gigabytesPerDay) }}</dd>
                <dt>usable</dt><dd>{{ gigabytes(v.usableGB) }}</dd>
                <dt>events at full quality</dt><dd>{{ three(v.evidence.fullPercent) }} %</dd>
                <dt>events with nothing recorded, a day</dt><dd>{{ three(v.evidence.missedPerDay) }}</dd>
              </dl>
            </template>
            <p v-if="p('all')" class="short" role="alert">{{ p('all') }}</p>
            <p v-else-if="!v" class="soft">{{ Object.keys(problems).length ? 'Once what is marked is mended.' : 'Counting…' }}</p>
            <p class="acts"><button type="button" class="act" :disabled="making" data-test="make-site" @click="make">Create site</button> <RouterLink to="/">Cancel</RouterLink></p>
            <template v-if="v && draft">
              <div class="assumed" data-test="assumed">
                <h3>It assumes of each camera</h3>
                <NumberField label="Bitrate, nothing moving" unit="kbit/s" none="as modelled" :value="Math.round(draft.assumed.idleKbps)" :max="1000000" data-field="idle" @change="(k) => setRate('idleKbps', k)" />
                <NumberField label="Bitrate, moving" unit="kbit/s" none="as modelled" :value="Math.round(draft.assumed.activeKbps)" :max="1000000" data-field="active" @change="(k) => setRate('activeKbps', k)" />
                <NumberField label="Events a day" none="as usual there" :value="Number(three(draft.assumed.eventsPerDay).replace(/\s/g, ''))" :max="1000000" data-field="events" @change="(n) => (opening.eventsPerDay = n || undefined)" />
                <p class="soft">so it is written <b>{{ three(draft.assumed.writtenPercent) }} %</b> of the week</p>
              </div>
              <details v-if="draft.findings.length" data-test="opening-findings">
                <summary>{{ count(draft.findings.length, 'finding') }}</summary>
                <p v-for="f in draft.findings" :key="f.id" :class="{ short: f.severity === 'error' }">{{ f.sentence }} <span class="soft">{{ f.reason }}</span></p>
              </details>
              <p v-else class="soft">no findings</p>
            </template>
          </section>
        </div>
      </form>
    </main>
  </div>
</template>

<style scoped>
.new {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100vh;
}

main {
  overflow: auto;
  padding: 18px max(16px, calc(50vw - 460px));
}

h1 {
  font-size: 20px;
}

.columns {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 16px;
  align-items: start;
}

fieldset {
  margin: 0 0 12px;
}

legend {
  font-weight: 600;
  padding: 0 4px;
}

.duty {
  display: flex;
  gap: 8px;
  padding: 3px 0;
  cursor: pointer;
}

.duty .soft {
  display: block;
  font-size: 12px;
}

.duty input {
  accent-color: var(--base);
}

.verdict[aria-busy='true'] .days,
.verdict[aria-busy='true'] .figures {
  opacity: 0.55;
}

.days {
  margin: 4px 0;
}

.days b {
  font-size: 24px;
}

.names textarea {
  width: 100%;
  margin-top: 4px;
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 5px;
  color: inherit;
  font: inherit;
}

.assumed h3 {
  margin-top: 6px;
  font-weight: 600;
}

.acts {
  display: flex;
  gap: 14px;
  align-items: center;
}

.columns :deep(.field) {
  grid-template-columns: minmax(0, 1fr) minmax(0, 240px) 40px;
}

.columns :deep(.field .problem) {
  grid-column: 1 / -1;
}

@media (max-width: 760px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
