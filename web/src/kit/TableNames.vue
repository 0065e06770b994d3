<script setup lang="ts">
import { ElOption, ElOptionGroup, ElSelect } from 'element-plus'
import { computed } from 'vue'

import type { ReadTable, SaidName } from '../api/types'
import { count } from '../ui/figures'

/** Names of a table that this plan does not know: made, one that is there, or left out, each said once. */
const { table } = defineProps<{ table: ReadTable }>()
const said = defineModel<SaidName[]>({ required: true })

type Unknown = ReadTable['unknown'][number]
const sorts = {
  recorder: 'Recorder',
  pool: 'Pool',
  kind: 'Camera kind',
  activity: 'Activity',
  week: 'Week',
  group: 'Group',
} as const
const left = 'Leave it out'
const sameName = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase()
const choicesOf = (u: Unknown) => table.names.find((n) => n.sort === u.sort)
const chosen = (u: Unknown): SaidName | undefined =>
  said.value.find((n) => n.sort === u.sort && n.text === u.text) ??
  (u.sort === 'group' ? { sort: u.sort, text: u.text, as: 'make' } : undefined) // naming a group makes it
const valueOf = (n: SaidName | undefined) => n && `${n.as} ${n.of ?? ''}`
const undecided = computed(() => table.unknown.filter((u) => !chosen(u)).length)

/** What it is most simply made like; of an activity only one of its name, as nobody knows what happens there. */
function plainly(u: Unknown): SaidName | undefined {
  const like = choicesOf(u)?.like ?? []
  const one = u.sort === 'activity' ? like.find((l) => sameName(l.name, u.text)) : like[0]
  return one && { sort: u.sort, text: u.text, as: 'make', of: one.id || undefined }
}
function say(u: Unknown, value: string) {
  const [as, ...of] = value.split(' ')
  const name: SaidName = { sort: u.sort, text: u.text, as: as as SaidName['as'], of: of.join(' ') || undefined }
  said.value = [...said.value.filter((n) => n.sort !== u.sort || n.text !== u.text), name]
}
/** Says one thing of all that nothing was said of yet. */
function sayAll(what: (u: Unknown) => SaidName | undefined) {
  said.value = [...said.value, ...table.unknown.filter((u) => !chosen(u)).flatMap((u) => what(u) ?? [])]
}
</script>

<template>
  <section data-test="table-names">
    <h3>Names that this plan does not know</h3>
    <p class="soft">
      <template v-if="undecided"
        >{{ count(undecided, 'name') }} to be decided; until then their lines are left out.</template
      >
      <template v-else>All are decided.</template>
      <button
        v-if="undecided"
        type="button"
        class="plain-button link"
        data-test="make-names"
        @click="sayAll((u) => plainly(u))"
      >
        Make them
      </button>
      <button
        v-if="undecided"
        type="button"
        class="plain-button link"
        data-test="leave-names"
        @click="sayAll((u) => ({ sort: u.sort, text: u.text, as: 'leave' }))"
      >
        Leave them out
      </button>
    </p>
    <div class="list">
      <table>
        <tbody>
          <tr v-for="u in table.unknown" :key="`${u.sort} ${u.text}`" :data-name="`${u.sort} ${u.text}`">
            <td class="soft">{{ sorts[u.sort] }}</td>
            <td>
              <b>{{ u.text }}</b> <span class="soft">{{ count(u.lines, 'line') }}</span>
            </td>
            <td>
              <ElSelect
                :model-value="valueOf(chosen(u))"
                size="small"
                filterable
                placeholder="Decide…"
                :aria-label="`What ${u.text} is`"
                :fit-input-width="false"
                @change="(v: string) => say(u, v)"
              >
                <ElOption value="leave " :label="left" />
                <ElOptionGroup v-if="choicesOf(u)?.there.length" label="It is">
                  <ElOption v-for="t in choicesOf(u)!.there" :key="t.id" :value="`use ${t.id}`" :label="t.name" />
                </ElOptionGroup>
                <ElOptionGroup v-if="choicesOf(u)?.like.length" label="Make it">
                  <ElOption
                    v-for="l in choicesOf(u)!.like"
                    :key="l.id"
                    :value="`make ${l.id}`"
                    :label="l.id ? `Make it: ${l.name}` : `Make it, ${l.name}`"
                  />
                </ElOptionGroup>
              </ElSelect>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
h3 {
  margin: 8px 0 2px;
  font-size: var(--text);
}

p {
  margin: 0 0 4px;
}

.link {
  margin-left: 10px;
}

.list {
  max-height: 220px;
  overflow: auto;
}

table {
  width: 100%;
  border-collapse: collapse;
}

td {
  padding: 3px 8px 3px 0;
  border-bottom: 1px solid var(--rule);
}

.el-select {
  width: 260px;
}

/* The frame around it shows the focus. */
.el-select :deep(input) {
  outline: none;
}
</style>
