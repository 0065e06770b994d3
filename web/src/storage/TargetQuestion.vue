<script setup lang="ts">
import { ElOption, ElSelect } from 'element-plus'
import { computed, useId } from 'vue'

import { useSite } from '../site/useSite'
import ChoiceField from '../ui/ChoiceField.vue'
import NumberField from '../ui/NumberField.vue'
import SwitchField from '../ui/SwitchField.vue'
import PricesForm from './PricesForm.vue'
import { measures, ofGroup, type Target } from './useTarget'

/** The question: how many days, and what may not be touched for them. */
const props = defineProps<{ target: Target }>()
const site = useSite()
const id = useId()
const { wanted, by, chance, locked, frames, quality, drives, money, days } = props.target
const cameras = computed(() => (site.plan?.channels ?? []).filter((c) => !c.noCamera))
const groups = computed(() => [...new Set(cameras.value.flatMap((c) => c.group || []))])
const currency = computed(() => site.plan?.prices?.currency ?? '')
</script>

<template>
  <div class="question">
    <h2>What would it take to keep</h2>
    <NumberField
      label="Days to keep"
      unit="days"
      :value="days"
      :min="0.1"
      :max="36500"
      data-field="target"
      @change="(v) => (wanted = v)"
    />
    <b>on every channel</b>
    <ChoiceField label="Held against" bare :value="by" :choices="measures" @change="(v) => (by = v)" />
    <NumberField
      v-if="by === 'chance'"
      label="Chance"
      unit="%"
      :value="chance"
      :min="1"
      :max="99"
      data-field="chance"
      @change="(v) => (chance = v)"
    />
    <b>?</b>
  </div>
  <div class="ask">
    <div class="lock">
      <label :for="id">Not to be touched</label>
      <ElSelect
        :id="id"
        v-model="locked"
        multiple
        filterable
        collapse-tags
        :max-collapse-tags="2"
        size="small"
        placeholder="all may be changed"
        data-choice="locked"
      >
        <ElOption v-for="g in groups" :key="`g ${g}`" :value="ofGroup(g)" :label="`All of ${g}`" />
        <ElOption v-for="c in cameras" :key="c.id" :value="c.id" :label="`${c.number} ${c.name}`" />
      </ElSelect>
    </div>
    <SwitchField label="No fewer frames" :value="frames" @change="(on) => (frames = on)" />
    <NumberField
      label="More drives a pool, at most"
      :value="drives"
      :min="0"
      :max="24"
      whole
      data-field="drives"
      @change="(v) => (drives = v)"
    />
    <NumberField
      v-if="drives"
      label="for at most"
      :unit="currency"
      :value="money"
      :min="0"
      optional
      data-field="money"
      @change="(v) => (money = v)"
      @clear="money = undefined"
    />
    <SwitchField label="Pictures may be worse" :value="quality" @change="(on) => (quality = on)" />
  </div>
  <details v-if="drives || site.plan?.prices" :open="!!drives">
    <summary>Prices of drives</summary>
    <PricesForm />
  </details>
</template>

<style scoped>
.ask :deep(.field) {
  gap: 8px;
}

.question {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
  align-items: center;
  margin: 6px 0 2px;
}

.question h2,
.question b {
  margin: 0;
  font-weight: 600;
  font-size: var(--heading);
}

.question :deep(.field) {
  display: flex;
  gap: 6px;
  width: auto;
}

.question :deep(.field > label) {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}

.question :deep(.bare) {
  width: var(--word);
}

.question :deep(.el-input) {
  width: var(--number);
}

.ask {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 22px;
  align-items: center;
}

.lock {
  display: flex;
  gap: 8px;
  align-items: center;
  white-space: nowrap;
}

.lock .el-select {
  width: var(--word);
}

summary {
  cursor: pointer;
  color: var(--soft);
}
</style>
