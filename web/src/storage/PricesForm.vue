<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Prices } from '../api/types'
import { useSite } from '../site/useSite'
import { three } from '../ui/figures'
import NumberField from '../ui/NumberField.vue'
import { rowKey } from '../ui/rowKey'
import TextField from '../ui/TextField.vue'

/** What drives cost, by their size. */
const site = useSite()
const prices = computed<Prices>(() => site.plan?.prices ?? { currency: 'EUR', drives: [] })
const list = computed(() => prices.value.drives ?? [])
/** Sizes that are in use and have no price. */
const missing = computed(() => {
  const sizes = (site.plan?.recorders ?? []).flatMap((r) => r.pools.flatMap((p) => p.drives.map((d) => d.terabytes)))
  return [...new Set(sizes)].filter((tb) => !list.value.some((d) => d.terabytes === tb))
})
const set = (change: Partial<Prices>) => site.change([{ setPrices: { prices: { ...prices.value, ...change } } }])
const put = (i: number, change: Partial<{ terabytes: number; each: number }>) =>
  set({ drives: list.value.map((d, k) => (k === i ? { ...d, ...change } : d)) })
/** Sizes whose price is being asked: what nobody has said costs something, not nothing. */
const pending = ref<{ key: number; terabytes: number }[]>([])
let keys = 0
const add = (terabytes: number) =>
  pending.value.some((p) => p.terabytes === terabytes) || pending.value.push({ key: keys++, terabytes })
function price(row: { key: number; terabytes: number }, each: number) {
  pending.value = pending.value.filter((p) => p.key !== row.key)
  set({ drives: [...list.value, { terabytes: row.terabytes, each }] })
}
</script>

<template>
  <div class="prices" data-test="prices">
    <TextField label="Currency" :value="prices.currency" :maxlength="20" @change="(c) => c && set({ currency: c })" />
    <div v-for="(d, i) in list" :key="rowKey(list, i, (x) => x.terabytes)" class="drive">
      <NumberField
        label="A drive of"
        unit="TB"
        :value="d.terabytes"
        member="prices.drives.terabytes"
        data-field="price-size"
        @change="(v) => put(i, { terabytes: v })"
      />
      <NumberField
        label="costs"
        :unit="prices.currency"
        :value="d.each"
        member="prices.drives.each"
        data-field="price"
        @change="(v) => put(i, { each: v })"
      />
      <button type="button" class="plain-button link" @click="set({ drives: list.filter((_, k) => k !== i) })">
        Remove
      </button>
    </div>
    <div v-for="p in pending" :key="`p ${p.key}`" class="drive">
      <NumberField
        label="A drive of"
        unit="TB"
        :value="p.terabytes"
        member="prices.drives.terabytes"
        @change="(v) => (p.terabytes = v)"
      />
      <NumberField
        label="costs"
        :unit="prices.currency"
        :value="undefined"
        :min="0"
        optional
        data-field="price"
        @change="(v) => price(p, v)"
      />
    </div>
    <p class="acts">
      <button v-for="tb in missing" :key="tb" type="button" class="plain-button link" @click="add(tb)">
        Price of {{ three(tb) }} TB
      </button>
      <button type="button" class="plain-button link" data-test="add-price" @click="add(8)">
        Price of another size
      </button>
    </p>
  </div>
</template>

<style scoped>
.drive {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  align-items: center;
}

.prices {
  max-width: 560px;
}

.prices :deep(.field) {
  gap: 8px;
}

.acts {
  display: flex;
  gap: 14px;
  margin: 4px 0;
}
</style>
