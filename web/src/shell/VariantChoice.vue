<script setup lang="ts">
import { computed, ref } from 'vue'

import { useSite } from '../site/useSite'
import { useVariants } from '../site/useVariants'
import { daysInWords } from '../ui/figures'
import FilePick from '../ui/FilePick.vue'
import { vTyped } from '../ui/typed'

/** The variants of the site: which is open, which are removed, and what can be done with them. */
const emit = defineEmits<{ close: [] }>()
const site = useSite()
const { here, away, show, make, importFile, adopt, remove, rename } = useVariants()
const wish = ref('')
const current = computed(() => site.variants.find((v) => v.id === site.planId))
const isAdopted = computed(() => site.planId === site.adopted)

const making = ref(false)
async function made() {
  if (making.value) return // a second Enter makes no second one
  making.value = true
  const name = wish.value.trim() || `${site.plan!.name}, other`
  if (await make(name)) {
    wish.value = ''
    emit('close')
  }
  making.value = false
}
/** A name that is none is not taken, and the one there is stands again. */
function renamed(event: Event) {
  const field = event.target as HTMLInputElement
  if (field.value.trim()) rename(field.value)
  else field.value = site.plan!.name
}
const days = (kept?: number | null) => (kept == null ? '' : daysInWords(kept))
</script>

<template>
  <div class="menu" data-test="variants">
    <h2>Variants</h2>
    <ul>
      <li v-for="v in here" :key="v.id" :data-variant-row="v.id">
        <button
          type="button"
          class="plain-button row"
          :aria-current="v.id === site.planId ? 'true' : undefined"
          @click="(emit('close'), void show(v.id))"
        >
          <span
            ><b v-if="v.id === site.planId">{{ v.name }}</b
            ><template v-else>{{ v.name }}</template
            ><i v-if="v.id === site.adopted"> adopted</i></span
          ><span class="soft">{{ days(v.keptDays) }}</span>
        </button>
      </li>
    </ul>
    <form v-if="site.role === 'planner'" class="new" @submit.prevent="made">
      <input
        v-model="wish"
        aria-label="Name of a new variant"
        placeholder="New copy of this variant"
        maxlength="200"
        data-field="new-variant"
      />
      <button type="submit" class="act" data-test="make-variant">Create</button>
    </form>
    <p class="acts">
      <button
        v-if="!isAdopted && site.role === 'planner'"
        type="button"
        class="plain-button link"
        data-test="adopt"
        @click="adopt(site.planId)"
      >
        Adopt this one
      </button>
      <button
        v-if="!isAdopted && current"
        type="button"
        class="plain-button link"
        data-test="remove-variant"
        @click="(emit('close'), void remove(current!, true))"
      >
        Remove this one
      </button>
      <RouterLink :to="{ name: 'compare' }" @click="emit('close')">Compare</RouterLink>
      <FilePick label="From a plan file" accept=".json,.zip,application/json,application/zip" @pick="importFile" />
    </p>
    <label class="name"
      >Name of this one
      <input v-typed="site.plan?.name" maxlength="200" data-field="variant-name" @change="renamed" />
    </label>
    <template v-if="away.length">
      <h2>Removed</h2>
      <ul>
        <li v-for="v in away" :key="v.id" class="gone">
          <span>{{ v.name }}</span><button
            type="button"
            class="plain-button link"
            :data-restore="v.id"
            @click="remove(v, false)"
          >
            Restore
          </button>
        </li>
      </ul>
    </template>
  </div>
</template>

<style scoped>
h2 {
  margin: 0 0 4px;
  font-size: var(--second);
}

ul {
  list-style: none;
  margin: 0 0 8px;
  padding: 0;
  max-height: 240px;
  overflow: auto;
}

.row,
.gone {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  width: 100%;
  padding: 3px 6px;
  text-align: left;
}

.row:hover {
  background: var(--band);
}

i {
  color: var(--soft);
}

.new,
.name {
  display: flex;
  gap: 8px;
  align-items: center;
}

input {
  flex: 1;
  min-width: 0;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  margin: 8px 0;
}
</style>
