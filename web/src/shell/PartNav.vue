<script setup lang="ts">
/** The parts of a page, of which one is shown below. */
defineProps<{ page: string; label: string; parts: { id: string; name: string }[]; here: string }>()
</script>

<template>
  <nav class="parts" :aria-label="label">
    <RouterLink
      v-for="p in parts"
      :key="p.id"
      :to="{ name: page, params: { part: p === parts[0] ? '' : p.id } }"
      :class="{ here: here === p.id }"
      :aria-current="here === p.id ? 'page' : undefined"
      :data-part="p.id"
      >{{ p.name }}</RouterLink
    >
  </nav>
</template>

<style scoped>
.parts {
  display: flex;
  gap: 18px;
  padding: 7px 16px 0;
  border-bottom: 1px solid var(--rule);
  white-space: nowrap;
  overflow-x: auto;
}

.parts a {
  text-decoration: none;
  color: var(--soft);
  padding-bottom: 4px;
  border-bottom: 2px solid transparent;
}

.parts a.here {
  color: var(--ink);
  font-weight: 600;
  border-color: var(--base);
}
</style>
