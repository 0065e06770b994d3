<script setup lang="ts">
import { useFindings } from '../findings/useFindings'

const { count } = useFindings()
</script>

<template>
  <nav class="rail" aria-label="Steps">
    <RouterLink :to="{ name: 'kit' }" active-class="here">Kit</RouterLink>
    <RouterLink :to="{ name: 'week' }" exact-active-class="here">Week</RouterLink>
    <RouterLink :to="{ name: 'weeks' }" class="under" active-class="here">Weeks, dates</RouterLink>
    <RouterLink :to="{ name: 'findings' }" exact-active-class="here"
      >Findings <b v-if="count.error" class="short">{{ count.error }}</b></RouterLink
    >
    <RouterLink :to="{ name: 'history' }" exact-active-class="here">History</RouterLink>
  </nav>
</template>

<style scoped>
.rail {
  display: flex;
  flex-direction: column;
  border-right: 1px solid var(--rule);
  padding-top: 8px;
}

.rail a {
  display: flex;
  justify-content: space-between;
  gap: 5px;
  padding: 9px 10px 9px 13px;
  text-decoration: none;
  border-left: 3px solid transparent;
}

.rail a.under {
  padding: 3px 4px 8px 20px;
  font-size: 12px;
}

.rail a:hover {
  background: var(--band);
}

.rail a.here {
  font-weight: 600;
  border-left-color: var(--base);
  background: var(--sheet);
}

@media (max-width: 500px) {
  .rail {
    flex-direction: row;
    padding: 0;
    border: 0;
    border-top: 1px solid var(--rule);
  }

  .rail a {
    flex: 1;
    border-left: 0;
    border-top: 3px solid transparent;
  }

  .rail a.here {
    border-top-color: var(--base);
  }
}
</style>
