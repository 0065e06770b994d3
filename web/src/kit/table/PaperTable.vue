<script setup lang="ts">
import { computed } from 'vue'

import type { TableColumn } from '../../api/types'
import { useTable } from './useTable'
import { widthOf } from './useColumns'

/**
 * The channels as they are printed. A sheet is narrower than the table: its columns follow one another in strips, each
 * with what says whose row it is. Headings stand on every sheet, no row is parted, and a column in which no channel has
 * anything is named below instead.
 */
const props = defineProps<{ ids: string[]; columns: TableColumn[] }>()
const table = useTable()
const WIDTH = 900 // of a strip, in pixels of the screen; on paper all is a quarter smaller
const naming = ['number', 'name', 'recorder']

const isEmpty = (c: TableColumn) => props.ids.every((id) => !table.text(id, c.id))
const [empty, filled] = [
  computed(() => props.columns.filter(isEmpty)),
  computed(() => props.columns.filter((c) => !isEmpty(c))),
]

const strips = computed(() => {
  const names = filled.value.filter((c) => naming.includes(c.id))
  const room = WIDTH - names.reduce((sum, c) => sum + widthOf(c), 0)
  const out: TableColumn[][] = []
  let left = 0
  for (const c of filled.value) {
    if (naming.includes(c.id)) continue
    left -= widthOf(c)
    if (left < 0 || !out.length) {
      out.push([...names])
      left = room - widthOf(c)
    }
    out.at(-1)!.push(c)
  }
  return out.length ? out : [names]
})

/** The columns of one group that stand side by side. */
function groupsOf(strip: TableColumn[]) {
  const out: { name: string; columns: number }[] = []
  for (const c of strip) {
    const last = out.at(-1)
    if (last?.name === c.group) last.columns++
    else out.push({ name: c.group, columns: 1 })
  }
  return out
}
</script>

<template>
  <table v-for="(strip, k) in strips" :key="k" class="strip">
    <thead>
      <tr>
        <th v-for="(g, n) in groupsOf(strip)" :key="n" :colspan="g.columns" scope="colgroup" class="soft">
          {{ g.name }}
        </th>
      </tr>
      <tr>
        <th v-for="c in strip" :key="c.id" scope="col" :class="{ numeric: c.numeric }">
          {{ c.title }} <span v-if="c.unit" class="soft">{{ c.unit }}</span>
        </th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="id in ids" :key="id">
        <td v-for="c in strip" :key="c.id" :class="{ numeric: c.numeric }">{{ table.text(id, c.id) }}</td>
      </tr>
    </tbody>
  </table>
  <p v-if="empty.length">Nothing is said of any channel under {{ empty.map((c) => c.title).join(', ') }}.</p>
</template>

<style scoped>
.strip {
  width: 100%;
  margin-bottom: 24px;
  border-collapse: collapse;
  font-size: 0.75em;
  line-height: 1.3;
}

th,
td {
  border-bottom: 1px solid var(--rule);
  padding: 2px 12px 2px 0;
  text-align: left;
  vertical-align: baseline;
}

.numeric {
  text-align: right;
}
</style>
