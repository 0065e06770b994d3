<script setup lang="ts">
import { useTitle } from '@vueuse/core'

import { me } from '../api/session'
import TopBar from '../shell/TopBar.vue'

/** The page of something about people and their accounts. */
const props = defineProps<{ title: string; wide?: boolean }>()
useTitle(`${props.title} · Wakefield`)
</script>

<template>
  <div class="people">
    <TopBar />
    <nav v-if="me?.here && me.accounts" aria-label="Accounts">
      <RouterLink to="/">All sites</RouterLink>
      <RouterLink to="/account">Your account</RouterLink>
      <RouterLink v-if="me.planner" to="/people">People</RouterLink>
      <RouterLink v-if="me.planner" to="/audit">What happened</RouterLink>
    </nav>
    <main :class="{ wide }">
      <h1>{{ title }}</h1>
      <p v-if="me && !me.accounts" data-test="no-accounts">
        This server has no accounts: whoever reaches it may do everything, which is why only this machine reaches it.
        <code>wakefield serve</code> asks people to sign in, and so does <code>wakefield demo --accounts</code>.
      </p>
      <slot v-else />
    </main>
  </div>
</template>

<style scoped>
.people {
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr);
  height: 100%;
}

nav {
  display: flex;
  gap: 16px;
  padding: 6px 16px;
  border-bottom: 1px solid var(--rule);
  overflow: auto;
}

nav a {
  white-space: nowrap;
  text-decoration: none;
  color: var(--soft);
}

nav a.router-link-exact-active {
  color: var(--ink);
  font-weight: 600;
}

main {
  grid-row: 3;
  overflow: auto;
  padding: 16px max(16px, calc(50% - 340px)) 32px;
}

main.wide {
  padding: 16px max(16px, calc(50% - 560px)) 32px;
}

main :deep(h2) {
  margin: 24px 0 8px;
  font-size: var(--text);
}

main :deep(table) {
  width: 100%;
  border-collapse: collapse;
}

main :deep(th) {
  text-align: left;
  font-weight: 400;
  font-size: var(--second);
  color: var(--soft);
}

main :deep(th),
main :deep(td) {
  padding: 4px 12px 4px 0;
  border-bottom: 1px solid var(--rule);
  vertical-align: top;
}

main :deep(.remove) {
  color: var(--short);
}
</style>
