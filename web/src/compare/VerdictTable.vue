<script setup lang="ts">
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus'
import { computed } from 'vue'

import type { Compared } from '../api/types'
import { differenceOf, isBest, isKnown, rows, tells } from './figures'

/** The verdicts of variants in columns, with how each differs from the first; the best of each row has a dot. */
const props = defineProps<{ list: Compared[]; second?: Compared; open: string }>()
const emit = defineEmits<{ look: [id: string]; lead: [id: string]; show: [id: string]; adopt: [id: string] }>()
const known = computed(() => rows.filter((r) => isKnown(r, props.list)))
const shown = computed(() => known.value.filter((r) => tells(r, props.list)))
const same = computed(() => known.value.filter((r) => !tells(r, props.list)))
const act = (id: string, command: 'lead' | 'show' | 'adopt') =>
  command === 'lead' ? emit('lead', id) : command === 'show' ? emit('show', id) : emit('adopt', id)
</script>

<template>
  <div class="scroll">
    <table data-test="verdicts">
      <thead>
        <tr>
          <th scope="col"><span class="visually-hidden">figure</span></th>
          <th
            v-for="(c, i) in list"
            :key="c.id"
            scope="col"
            :class="{ second: second?.id === c.id }"
            :data-column="c.id"
          >
            <span class="head">
              <span class="name"
                ><b>{{ c.name }}</b> <i v-if="c.adopted">adopted</i></span
              >
              <ElDropdown
                v-if="i > 0 || !c.adopted || c.id !== open"
                :persistent="false"
                trigger="click"
                placement="bottom-end"
                @command="(command) => act(c.id, command)"
              >
                <button
                  type="button"
                  class="plain-button dots"
                  :data-column-menu="c.id"
                  :aria-label="`Acts for ${c.name}`"
                >
                  ⋯
                </button>
                <template #dropdown>
                  <ElDropdownMenu>
                    <ElDropdownItem v-if="i > 0" command="lead">Make it the baseline</ElDropdownItem>
                    <ElDropdownItem v-if="!c.adopted" command="adopt" :data-adopt="c.id">Adopt</ElDropdownItem>
                    <ElDropdownItem v-if="c.id !== open" command="show">Open</ElDropdownItem>
                  </ElDropdownMenu>
                </template>
              </ElDropdown>
            </span>
            <span class="soft under">
              <template v-if="i === 0">the baseline</template>
              <button
                v-else-if="list.length > 2"
                type="button"
                class="plain-button link"
                :aria-pressed="second?.id === c.id"
                :data-look="c.id"
                @click="$emit('look', c.id)"
              >
                {{ second?.id === c.id ? 'shown below' : 'Show what differs' }}
              </button>
              <template v-if="c.id === open">{{ i === 0 || list.length > 2 ? ' · ' : '' }}open</template>
            </span>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="r in shown" :key="r.name">
          <th scope="row">{{ r.name }}</th>
          <td
            v-for="(c, i) in list"
            :key="c.id"
            class="number"
            :class="{ best: isBest(r, c, list), second: second?.id === c.id }"
          >
            <i v-if="i > 0 && differenceOf(r, c, list[0]!)" class="by">{{ differenceOf(r, c, list[0]!) }}</i>
            {{ r.say(c) }}
            <span class="dot"
              ><template v-if="isBest(r, c, list)"
                ><span aria-hidden="true">●</span><span class="visually-hidden">best</span></template
              ></span
            >
          </td>
        </tr>
      </tbody>
    </table>
    <p class="soft foot">
      <template v-if="list.length > 1">● best of the row.</template>
      <template v-if="same.length && list.length > 1">
        The same in all: {{ same.map((r) => `${r.name} ${r.say(list[0]!)}`).join('; ') }}.
      </template>
    </p>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}

table {
  border-collapse: collapse;
}

th,
td {
  text-align: left;
  font-weight: 400;
  padding: 4px 12px 4px 8px;
  vertical-align: top;
}

thead th + th {
  min-width: 210px;
  text-align: right;
}

td.number {
  text-align: right;
  white-space: nowrap;
}

tbody tr {
  border-top: 1px solid var(--rule);
}

tbody th {
  color: var(--soft);
  min-width: 0;
}

.second {
  background: var(--band);
}

.best {
  font-weight: 600;
}

.by {
  margin-right: 10px;
  font-style: normal;
  font-weight: 400;
}

.dot {
  display: inline-block;
  width: 12px;
  font-size: var(--axis);
}

i {
  color: var(--soft);
}

.head {
  display: flex;
  gap: 8px;
  justify-content: flex-end;
}

.name {
  min-width: 0;
  overflow-wrap: anywhere;
}

.dots {
  width: 20px;
  text-align: center;
}

.under {
  font-size: var(--second);
  margin-right: 20px;
}

.foot {
  margin: 6px 8px 0;
  font-size: var(--second);
}

@media print {
  .dots {
    display: none;
  }
}
</style>
