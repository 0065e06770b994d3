<script setup lang="ts">
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus'

import { stages, type SiteSearch } from './useSiteQuery'
import { columns, useSiteColumns } from './useSiteColumns'

/** What narrows the list of sites, and how it stands. */
defineProps<{
  asked: SiteSearch
  customers: { name: string; count: number }[]
  places: { name: string; count: number }[]
  tags: { name: string; count: number }[]
  narrowed: boolean
}>()
const emit = defineEmits<{ set: [next: SiteSearch]; show: [next: SiteSearch] }>()
const { chosen, toggle } = useSiteColumns()
const value = (e: Event) => (e.target as HTMLSelectElement).value || undefined
</script>

<template>
  <div class="filters" role="group" aria-label="Which sites">
    <select
      :value="asked.stage ?? ''"
      aria-label="How far"
      data-test="by-stage"
      @change="emit('set', { stage: value($event) as SiteSearch['stage'] })"
    >
      <option value="">in work</option>
      <option v-for="s in stages" :key="s.id" :value="s.id">{{ s.name }}</option>
      <option value="away">archived</option>
    </select>
    <select
      :value="asked.only ?? ''"
      aria-label="In trouble"
      data-test="by-trouble"
      @change="emit('set', { only: value($event) as SiteSearch['only'] })"
    >
      <option value="">good or not</option>
      <option value="short">short of days</option>
      <option value="errors">with errors</option>
    </select>
    <template
      v-for="f in [
        { key: 'customer' as const, all: 'all customers', list: customers, now: asked.customer },
        { key: 'place' as const, all: 'all places', list: places, now: asked.place },
        { key: 'tags' as const, all: 'all tags', list: tags, now: asked.tags?.[0] },
      ]"
      :key="f.key"
    >
      <select
        v-if="f.list.length || f.now"
        :value="f.now ?? ''"
        :aria-label="f.key === 'tags' ? 'Tag' : f.key === 'place' ? 'Place' : 'Customer'"
        :data-test="`by-${f.key}`"
        @change="emit('set', { [f.key]: f.key === 'tags' && value($event) ? [value($event)!] : value($event) })"
      >
        <option value="">{{ f.all }}</option>
        <option v-for="v in f.list" :key="v.name" :value="v.name">{{ v.name }} ({{ v.count }})</option>
        <option v-if="f.now && !f.list.some((v) => v.name === f.now)" :value="f.now">{{ f.now }} (0)</option>
      </select>
    </template>
    <button v-if="narrowed" type="button" class="plain-button act-text" data-test="all-sites" @click="emit('show', {})">
      Show all
    </button>
    <span class="right">
      <label
        >Sorted by
        <select
          :value="asked.sort ?? 'trouble'"
          data-test="sort"
          @change="emit('set', { sort: value($event) as SiteSearch['sort'] })"
        >
          <option value="trouble">trouble</option>
          <option value="changed">last change</option>
          <option value="name">name</option>
        </select></label
      >
      <ElDropdown trigger="click" placement="bottom-end" :persistent="false" :hide-on-click="false" @command="toggle">
        <button type="button" class="act quiet" data-test="columns">Columns</button>
        <template #dropdown>
          <ElDropdownMenu>
            <ElDropdownItem
              v-for="c in columns"
              :key="c.id"
              :command="c.id"
              :aria-checked="chosen.includes(c.id)"
              role="menuitemcheckbox"
              >{{ chosen.includes(c.id) ? '✓' : '\u2003' }} {{ c.name }}</ElDropdownItem
            >
          </ElDropdownMenu>
        </template>
      </ElDropdown>
    </span>
  </div>
</template>

<style scoped>
.filters {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}

.act-text {
  color: var(--base);
}

.right {
  margin-left: auto;
  display: flex;
  align-items: center;
  gap: 12px;
}
</style>
