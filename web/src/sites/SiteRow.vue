<script setup lang="ts">
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus'
import { computed } from 'vue'

import { isPlanner, roleAt } from '../api/session'
import type { SiteLine } from '../api/types'
import DaysBar from '../ui/DaysBar.vue'
import { count, daysInWords, gigabytes } from '../ui/figures'
import { moment } from '../time/dates'
import { stageName } from './useSiteQuery'
import { useSiteColumns } from './useSiteColumns'

/** A site in one line. */
const props = defineProps<{ site: SiteLine; picked: boolean }>()
const emit = defineEmits<{ pick: [event: MouseEvent]; duplicate: []; archive: [] }>()
const { shown } = useSiteColumns()
const state = computed(() => props.site.state)
/** Of the plan as it was a moment ago, while somebody works on it. */
const old = computed(() => !!state.value && state.value.version < props.site.version)
const when = computed(() => moment(props.site.changed))

type Act = 'duplicate' | 'archive' | 'export' | 'bundle'
function act(command: Act) {
  if (command === 'duplicate') emit('duplicate')
  else if (command === 'archive') emit('archive')
  else location.assign(`/api/plans/${props.site.plan}/${command === 'bundle' ? 'zip' : 'file'}`)
}
</script>

<template>
  <input
    type="checkbox"
    :checked="picked"
    :aria-label="`Choose ${site.name}`"
    data-test="pick"
    @click="emit('pick', $event)"
  />
  <RouterLink :to="`/sites/${site.id}`" class="name" :title="`${site.name}, ${site.variant}`">
    <b>{{ site.name }}</b>
    <span class="soft">{{ site.customer || 'no customer named' }} · {{ site.variant }}</span>
  </RouterLink>
  <template v-for="c in shown" :key="c.id">
    <span v-if="c.id === 'stage'" :class="{ soft: site.stage === 'planned' }">{{ stageName(site.stage) }}</span>
    <span v-else-if="c.id === 'place'" class="cut" :title="site.place">{{ site.place }}</span>
    <span v-else-if="c.id === 'tags'" class="cut" :title="site.tags.join(', ')">{{ site.tags.join(', ') }}</span>
    <span
      v-else-if="c.id === 'kept'"
      class="kept"
      :class="{ short: state?.short, old }"
      :title="old ? `of revision ${state!.version}; revision ${site.version} is being estimated` : undefined"
    >
      <template v-if="state">
        <template v-if="state.keptDays != null"
          ><b>{{ daysInWords(state.keptDays) }}</b
          ><template v-if="state.requiredDays != null"> of {{ state.requiredDays }}</template></template
        >
        <template v-else>never overwritten</template>
        <DaysBar v-if="state.requiredDays" :kept="state.keptDays" :required="state.requiredDays" :short="state.short" />
      </template>
      <span v-else class="soft">{{ site.archived ? '' : 'counting…' }}</span>
    </span>
    <span v-else-if="c.id === 'worst'" class="cut" :title="state?.worst?.name"
      ><template v-if="state?.worst"
        ><span class="soft">{{ state.worst.number }}</span> {{ state.worst.name }}</template
      ></span
    >
    <span v-else-if="c.id === 'found'" class="found"
      ><template v-if="state"
        ><span :class="{ short: state.errors > 0 }">{{ count(state.errors, 'error') }}</span
        ><br /><span class="soft"
          >{{ count(state.warnings, 'warning') }}, {{ count(state.hints, 'hint') }}</span
        ></template
      ></span
    >
    <span v-else-if="c.id === 'storage'" class="number">{{ state ? gigabytes(state.usableGB) : '' }}</span>
    <span v-else-if="c.id === 'channels'" class="number">{{ state?.channels ?? site.channels }}</span>
    <time v-else class="soft number" :datetime="site.changed" :title="when">{{ when.split(', ')[0] }}</time>
  </template>
  <ElDropdown trigger="click" placement="bottom-end" :persistent="false" @command="act">
    <button type="button" class="plain-button more" :aria-label="`What can be done with ${site.name}`">⋯</button>
    <template #dropdown>
      <ElDropdownMenu>
        <ElDropdownItem v-if="isPlanner" command="duplicate">Duplicate</ElDropdownItem>
        <ElDropdownItem command="export">Export the plan file</ElDropdownItem>
        <ElDropdownItem command="bundle">Export it with its pictures</ElDropdownItem>
        <ElDropdownItem v-if="roleAt(site.id) === 'planner'" command="archive" divided>{{
          site.archived ? 'Restore' : 'Archive'
        }}</ElDropdownItem>
      </ElDropdownMenu>
    </template>
  </ElDropdown>
</template>

<style scoped>
.name {
  display: grid;
  text-decoration: none;
  overflow: hidden;
}

.name > *,
.cut {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.name span,
.found {
  font-size: var(--second);
}

.kept {
  position: relative;
  padding-bottom: 6px;
}

.old {
  font-style: italic;
}

.number {
  text-align: right;
}

.more {
  width: 28px;
  text-align: center;
  font-size: var(--heading);
}
</style>
