<script setup lang="ts">
import { ElPopover } from 'element-plus'
import { computed, ref } from 'vue'

import { useSite } from '../site/useSite'
import { later } from '../ui/later'
import { useOnce } from '../ui/useOnce'

/** Which variant of the site is open; another is one click away. */
const VariantChoice = later(async () => (await import('./reserve')).VariantChoice)
const site = useSite()
const open = ref(false)
const opened = useOnce(() => open.value)
const current = computed(() => site.variants.find((v) => v.id === site.planId))
const isAdopted = computed(() => site.planId === site.adopted)
const many = computed(() => site.variants.filter((v) => !v.removed).length)
</script>

<template>
  <ElPopover
    v-model:visible="open"
    trigger="click"
    placement="bottom-start"
    :persistent="false"
    :width="360"
    @show="site.lookForVariants()"
  >
    <template #reference>
      <button
        type="button"
        class="which"
        :title="`Variants of this site (the next one: Alt+Shift+V)`"
        data-test="variant"
        :data-variant="site.planId"
      >
        / {{ `${site.plan?.name} ` }}<span v-if="current?.removed" class="tag">removed</span
        ><span v-else-if="!isAdopted" class="tag">not adopted</span>
        <span v-if="many > 1" class="many">{{ `· ${many} variants` }}</span><span aria-hidden="true"> ▾</span>
      </button>
    </template>
    <VariantChoice v-if="opened" @close="open = false" />
  </ElPopover>
</template>

<style scoped>
.which {
  background: none;
  border: 0;
  border-radius: 4px;
  height: var(--field);
  padding: 2px 6px;
  color: var(--soft);
  cursor: pointer;
  max-width: 340px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.which:hover {
  background: var(--band);
}

.tag {
  margin-left: 6px;
  padding: 0 5px;
  border: 1px solid var(--alarm);
  border-radius: 4px;
  color: var(--ink);
  font-size: var(--axis);
}

.many {
  margin-left: 5px;
  font-size: var(--axis);
}

@media (max-width: 500px) {
  .which {
    max-width: 96px;
    padding: 2px;
  }

  .tag,
  .many {
    display: none;
  }
}
</style>
