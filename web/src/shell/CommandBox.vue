<script setup lang="ts">
import { ElDialog } from 'element-plus'
import { computed, ref, watch } from 'vue'

import { useCommands, type Command } from './useCommands'

/** Ctrl+K: finds channels, pages, duties, weeks and acts by a few letters. */
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ help: [] }>()
const { find } = useCommands(() => emit('help'))
const text = ref('')
const at = ref(0)
const field = ref<HTMLInputElement>()
const found = computed(() => (open.value ? find(text.value) : []))
watch([text, open], () => (at.value = 0))

function run(command: Command | undefined) {
  if (!command) return
  open.value = false
  text.value = ''
  command.run()
}

function key(event: KeyboardEvent) {
  const n = Math.max(1, found.value.length)
  if (event.key === 'ArrowDown') at.value = (at.value + 1) % n
  else if (event.key === 'ArrowUp') at.value = (at.value + n - 1) % n
  else if (event.key === 'Enter') run(found.value[at.value])
  else return
  event.preventDefault()
}
const kinds = { page: 'page', channel: 'channel', duty: 'duty', week: 'week', act: 'do' }
</script>

<template>
  <ElDialog
    v-model="open"
    width="520"
    top="12vh"
    :show-close="false"
    title="Find or do"
    class="command"
    @opened="(field?.focus(), field?.select())"
  >
    <input
      ref="field"
      v-model="text"
      class="field"
      role="combobox"
      aria-label="Find a channel, a page or a command"
      aria-expanded="true"
      aria-controls="commands"
      :aria-activedescendant="`command-${at}`"
      autocomplete="off"
      placeholder="A channel, a page, or a command"
      data-test="command"
      @keydown="key"
    />
    <ul id="commands" role="listbox" aria-label="Found">
      <li
        v-for="(c, i) in found"
        :id="`command-${i}`"
        :key="c.kind + c.name + (c.hint ?? '')"
        role="option"
        :aria-selected="i === at"
        @pointermove="at = i"
        @click="run(c)"
      >
        <span class="soft kind">{{ kinds[c.kind] }}</span> <span>{{ c.name }}</span>
        <span class="soft hint">{{ c.hint }}</span>
      </li>
    </ul>
    <p v-if="!found.length" class="soft">No match.</p>
  </ElDialog>
</template>

<style scoped>
.field {
  width: 100%;
  font-size: var(--heading);
  background: var(--sheet);
  border: 1px solid var(--soft);
  border-radius: 6px;
  padding: 6px 10px;
}

ul {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
}

li {
  display: grid;
  grid-template-columns: 60px minmax(0, 1fr) auto;
  gap: 8px;
  padding: 3px 8px;
  border-radius: 4px;
  cursor: pointer;
}

li[aria-selected='true'] {
  background: var(--selected);
}
</style>
