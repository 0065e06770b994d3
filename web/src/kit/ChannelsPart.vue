<script setup lang="ts">
import { useStorage } from '@vueuse/core'
import { computed, onMounted, ref, useTemplateRef } from 'vue'

import PlanGlance from '../glance/PlanGlance.vue'
import { useSite } from '../site/useSite'
import { count } from '../ui/figures'
import FilePick from '../ui/FilePick.vue'
import { printing } from '../ui/printing'
import ChannelPane from './ChannelPane.vue'
import CellTrouble from './table/CellTrouble.vue'
import ChannelTable from './table/ChannelTable.vue'
import PaperTable from './table/PaperTable.vue'
import { useTable } from './table/useTable'
import TableImport from './TableImport.vue'

/** The table of channels, with what can be done to those selected. */
const site = useSite()
const table = useTable()
const grid = useTemplateRef('grid')
const selected = ref<string[]>([])
const only = ref('') // the recorder whose channels are shown
const groups = ['Main stream', 'Sub stream', 'Third stream', 'Keeping', 'Events'] as const
const shown = useStorage<string[]>('wakefield-columns', ['Main stream', 'Keeping', 'Events'])
const importing = ref<File>()
const everywhere = ref('')

onMounted(() => void table.load())

/** What there is only one of needs no column. */
const single = computed(() => ({
  recorder: site.plan!.recorders.length === 1,
  pool: site.plan!.recorders.every((r) => r.pools.length === 1),
}))
const columns = computed(() =>
  table.columns.filter(
    (c) =>
      (c.group === 'Channel' || shown.value.includes(c.group)) &&
      !(c.id === 'recorder' && single.value.recorder) &&
      !(c.id === 'pool' && single.value.pool),
  ),
)
const ids = computed(() => {
  const order = new Map(site.plan!.recorders.map((r, i) => [r.id, i]))
  return site
    .plan!.channels.filter((c) => !only.value || c.recorder === only.value)
    .sort((a, b) => (order.get(a.recorder) ?? 0) - (order.get(b.recorder) ?? 0) || a.number - b.number)
    .map((c) => c.id)
})
const recorders = computed(() =>
  site.plan!.recorders.map((r) => ({
    id: r.id,
    name: r.name,
    used: site.plan!.channels.filter((c) => c.recorder === r.id).length,
    channels: r.channels,
  })),
)

function toggle(group: string) {
  shown.value = shown.value.includes(group) ? shown.value.filter((g) => g !== group) : [...shown.value, group]
}

const remove = () => site.change([{ removeChannels: { channels: selected.value } }])

function setAll() {
  grid.value?.fill(everywhere.value)
  everywhere.value = ''
  grid.value?.focus()
}
</script>

<template>
  <div class="channels">
    <div v-show="!printing" class="tools">
      <button type="button" class="act quiet" data-test="add-channel" @click="grid?.newRow()">Add a channel</button>
      <form class="all" @submit.prevent="setAll">
        <label for="set-all" class="soft"
          >{{ count(grid?.size ?? 1, 'cell') }} selected: set {{ (grid?.size ?? 1) > 1 ? 'all ' : '' }}to</label
        >
        <input id="set-all" v-model="everywhere" autocomplete="off" data-test="set-all" />
        <button type="submit" class="act quiet" :disabled="!selected.length">Set</button>
      </form>
      <button
        type="button"
        class="plain-button link"
        :disabled="!selected.length"
        data-test="remove-channels"
        @click="remove"
      >
        Remove {{ count(selected.length, 'channel') }}
      </button>
      <span class="right">
        <FilePick
          label="Import a table"
          accept=".csv,.xlsx,.txt,.tsv"
          quiet
          data-test="table-file"
          @pick="(file) => (importing = file)"
        />
        <a :href="`/api/plans/${site.planId}/channels.csv`" download>CSV</a>
        <a :href="`/api/plans/${site.planId}/channels.xlsx`" download>XLSX</a>
      </span>
    </div>
    <div v-show="!printing" class="tools second">
      <span v-if="recorders.length > 1" class="chips" role="group" aria-label="Recorder">
        <button type="button" class="chip" :aria-pressed="!only" @click="only = ''">All recorders</button>
        <button
          v-for="r in recorders"
          :key="r.id"
          type="button"
          class="chip"
          :aria-pressed="only === r.id"
          :data-drop-recorder="r.id"
          title="Show its channels alone; drop rows here to move them to it"
          @click="only = only === r.id ? '' : r.id"
        >
          {{ r.name }} <span class="soft">{{ r.used }} of {{ r.channels }}</span>
        </button>
      </span>
      <span class="chips" role="group" aria-label="Columns shown">
        <button
          v-for="g in groups"
          :key="g"
          type="button"
          class="chip"
          :aria-pressed="shown.includes(g)"
          @click="toggle(g)"
        >
          {{ g }}
        </button>
      </span>
      <span class="soft hint">Type, Tab, Enter · paste a block · Ctrl+D fills down · Ctrl+Enter sets all selected</span>
    </div>
    <CellTrouble />
    <p v-if="table.failure" class="short">
      {{ table.failure }} <button type="button" class="plain-button link" @click="table.load()">Try again</button>
    </p>
    <PaperTable v-if="printing" :ids="ids" :columns="columns" />
    <div v-show="!printing" class="body">
      <div class="left">
        <ChannelTable v-if="columns.length" ref="grid" :ids="ids" :columns="columns" @select="(s) => (selected = s)" />
        <PlanGlance v-if="columns.length" />
      </div>
      <ChannelPane :ids="selected" />
    </div>
    <TableImport v-if="importing" :file="importing" @done="importing = undefined" />
  </div>
</template>

<style scoped>
.channels {
  display: flex;
  flex-direction: column;
  min-height: 0;
}

.tools {
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 7px 16px 3px;
  white-space: nowrap;
}

.tools.second {
  padding: 2px 16px 6px;
  flex-wrap: wrap;
  gap: 4px 14px;
}

.all {
  display: flex;
  gap: 6px;
  align-items: center;
}

.right {
  margin-left: auto;
  display: flex;
  gap: 12px;
}

.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}

.chip {
  background: none;
  border: 1px solid var(--rule);
  height: var(--field);
  border-radius: 4px;
  padding: 0 9px;
  font-size: var(--second);
  cursor: pointer;
}

.chip[aria-pressed='true'] {
  background: var(--selected);
  border-color: var(--base);
}

.hint {
  font-size: var(--second);
  overflow: hidden;
  text-overflow: ellipsis;
}

.body {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 264px;
  min-height: 0;
  border-top: 1px solid var(--rule);
}

.left {
  display: flex;
  flex-direction: column;
  min-height: 0;
}

@media (max-width: 760px) {
  .body {
    grid-template: minmax(0, 1fr) minmax(0, 34%) / minmax(0, 1fr);
  }

  .tools {
    flex-wrap: wrap;
  }
}

/* Where the window is low its height is that of the table. */
@media (min-width: 501px) and (max-height: 520px) {
  .hint {
    display: none;
  }

  .tools.tools {
    flex-wrap: nowrap;
    overflow-x: auto;
    scrollbar-width: none;
  }
}

/* A phone is for reading. */
@media (max-width: 500px) {
  .body > :deep(.pane),
  .tools {
    display: none;
  }

  .body {
    grid-template-rows: minmax(0, 1fr);
  }
}
</style>
