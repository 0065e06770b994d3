<script setup lang="ts">
import type { components } from '../api/schema'
import type { SiteLine } from '../api/types'

type Role = components['schemas']['Role']

/** What somebody may do: everything of the company, or something at single sites. */
defineProps<{ sites: SiteLine[] }>()
const planner = defineModel<boolean>('planner', { required: true })
const roles = defineModel<Role[]>('roles', { required: true })
const kinds = [
  ['', 'nothing'],
  ['reader', 'reads'],
  ['fitter', 'fits: reads, ticks sheets'],
  ['planner', 'plans'],
] as const

const roleAt = (site: string) => roles.value.find((r) => r.site === site)?.role ?? ''
function set(site: string, role: string) {
  const others = roles.value.filter((r) => r.site !== site)
  roles.value = role ? [...others, { site, role: role as Role['role'] }] : others
}
</script>

<template>
  <div class="roles">
    <label
      ><input v-model="planner" type="checkbox" data-test="whole-planner" /> Plans all sites, and decides about
      people</label
    >
    <table v-if="!planner">
      <tbody>
        <tr v-for="s in sites" :key="s.id">
          <td>{{ s.name }}</td>
          <td>
            <select
              :value="roleAt(s.id)"
              :aria-label="`At ${s.name}`"
              :data-role-at="s.id"
              @change="set(s.id, ($event.target as HTMLSelectElement).value)"
            >
              <option v-for="[id, words] in kinds" :key="id" :value="id">{{ words }}</option>
            </select>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.roles {
  max-height: 300px;
  overflow: auto;
}
</style>
