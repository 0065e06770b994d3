<script setup lang="ts">
import { ref } from 'vue'

import { useHand } from '../../hand/useHand'
import SidePane from './SidePane.vue'

/** The side pane: beside the week, folded away where the window is narrow; on a phone it is of the channel selected. */
const open = ref(false)
const hand = useHand()
</script>

<template>
  <button
    type="button"
    class="fold"
    :class="{ of: hand.selection.length }"
    :aria-expanded="open"
    data-test="fold"
    @click="open = !open"
  >
    {{ open ? 'Close details' : 'Details' }}
  </button>
  <SidePane class="side" :class="{ unfolded: open }" />
</template>

<style scoped>
.fold {
  display: none;
}

@media (max-width: 1000px) {
  .fold {
    position: absolute;
    z-index: 6;
    right: 8px;
    bottom: 6px;
    display: block;
    background: var(--base);
    color: var(--on-base);
    border: 0;
    border-radius: 4px;
    padding: 2px 10px;
    cursor: pointer;
  }

  aside.side {
    display: none;
  }

  aside.side.unfolded {
    position: absolute;
    z-index: 5;
    inset: 0 0 0 auto;
    display: grid;
    width: min(280px, 80%);
    padding-bottom: 30px;
    box-shadow: -6px 0 18px rgb(0 0 0 / 18%);
  }
}

@media (max-width: 500px) {
  .fold:not(.of, [aria-expanded='true']) {
    display: none;
  }

  aside.side.unfolded {
    width: 100%;
  }
}
</style>
