<script setup lang="ts">
import { useFindings } from '../findings/useFindings'
import { pages } from './pages'

const { count } = useFindings()
</script>

<template>
  <nav class="rail" aria-label="Steps">
    <RouterLink
      v-for="p in pages"
      :key="p.name"
      :to="{ name: p.name }"
      :class="{ under: p.under, here: $route.name === p.name }"
      :aria-current="$route.name === p.name ? 'page' : undefined"
      :title="`${p.title} (Alt+Shift+${p.key})`"
    >
      {{ p.short ?? p.title }} <b v-if="p.counts && count.error" class="short">{{ count.error }}</b>
    </RouterLink>
  </nav>
</template>

<style scoped>
.rail {
  display: flex;
  flex-direction: column;
  border-right: 1px solid var(--rule);
  padding-top: 8px;
  min-height: 0;
  overflow-y: auto;
  scrollbar-width: thin;
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
  font-size: var(--second);
}

.rail a:hover {
  background: var(--band);
}

.rail a.here {
  font-weight: 600;
  border-left-color: var(--base);
  background: var(--sheet);
}

/* A low window has all steps in view. */
@media (min-width: 501px) and (max-height: 480px) {
  .rail {
    padding-top: 2px;
  }

  .rail a,
  .rail a.under {
    padding-top: 2px;
    padding-bottom: 3px;
  }
}

@media (max-width: 500px) {
  .rail {
    flex-direction: row;
    padding: 0;
    border: 0;
    border-top: 1px solid var(--rule);
    min-width: 0;
    overflow-x: auto;
  }

  .rail a,
  .rail a.under {
    flex: 1 0 auto;
    padding: 9px 9px 8px;
    align-items: center;
    border-left: 0;
    border-top: 3px solid transparent;
  }

  .rail a.here {
    border-top-color: var(--base);
  }
}
</style>
