<script setup lang="ts">
import { computed, ref } from 'vue'

import PlanGlance from '../../glance/PlanGlance.vue'
import { useSite } from '../../site/useSite'
import { count } from '../../ui/figures'
import DeviceAdd from './DeviceAdd.vue'
import DeviceHeld from './DeviceHeld.vue'
import DeviceSide from './DeviceSide.vue'
import { useDevices } from './useDevices'
import { ago } from '../sheets/ago'

/** What answers where, what it has and what the plan has, line by line; from → to before anything is done. */
const site = useSite()
const devices = useDevices()
const { all, list, failure, nameOf, inHand, show, held, may } = devices
const form = ref<'' | 'new' | 'change'>('')
const adding = computed(() => form.value !== '' || (all.value && !list.value.length && may.value))
const state = (d: (typeof list.value)[number]) => {
  if (d.work?.running) return 'at work'
  if (d.trouble) return 'trouble'
  if (!d.readAt) return 'not read'
  return d.id === inHand.value?.id && held.value
    ? held.value.lines.length
      ? count(held.value.lines.length, 'difference')
      : 'as planned'
    : `read ${ago(d.readAt)}`
}
function kept(id: string) {
  form.value = ''
  show(id)
}
</script>

<template>
  <div v-if="all && site.plan" class="devices" :class="{ adding: !inHand || adding }" data-test="devices">
    <aside class="left">
      <h1 class="title">Devices</h1>
      <ul data-test="device-list">
        <li v-for="d in list" :key="d.id">
          <button
            type="button"
            class="plain-button line"
            :aria-pressed="d.id === inHand?.id && !adding"
            @click="((form = ''), show(d.id))"
          >
            <span class="name" :title="nameOf(d)">{{ nameOf(d) }}</span>
            <span :class="d.trouble ? 'short' : 'soft'">{{ state(d) }}</span>
            <span class="soft address">{{ d.address }}</span>
          </button>
        </li>
      </ul>
      <button v-if="may" type="button" class="act quiet" data-test="device-new" @click="form = 'new'">
        Add a device
      </button>
      <p v-else class="soft">A planner or a fitter of this site speaks with devices.</p>
    </aside>
    <DeviceAdd
      v-if="adding"
      :key="form"
      class="middle sheet"
      :device="form === 'change' ? inHand : undefined"
      :devices="devices"
      :keeps="all.keeps"
      :first="!list.length"
      @kept="kept"
      @leave="form = ''"
    />
    <DeviceHeld
      v-else-if="inHand"
      :key="inHand.id"
      class="middle sheet"
      :device="inHand"
      :name="nameOf(inHand)"
      :devices="devices"
      @change="form = 'change'"
    />
    <p v-else class="middle sheet soft">No recorder or camera of this site was spoken with yet.</p>
    <PlanGlance v-if="!inHand || adding" class="plan" />
    <DeviceSide
      v-if="inHand && held && !adding"
      :key="'side' + inHand.id"
      class="right"
      :device="inHand"
      :devices="devices"
    />
  </div>
  <div v-else class="empty">
    <h1 class="title">Devices</h1>
    <p v-if="failure" role="alert" class="short">{{ failure }}</p>
    <p v-else class="soft" role="status">Looking which devices the site has…</p>
  </div>
</template>

<style scoped>
.devices {
  display: grid;
  grid-template-columns: 220px minmax(0, 1fr) 360px;
  gap: 16px;
  padding: 12px 16px;
  min-height: 0;
  height: 100%;
  box-sizing: border-box;
}

.left,
.right,
.middle {
  overflow: auto;
  min-height: 0;
}

.middle {
  padding: 12px 16px;
  margin: 0;
}

.adding {
  grid-template: auto minmax(0, 1fr) / 220px minmax(0, 1fr);
}

.plan {
  grid-area: 2 / 2;
  padding: 0;
}

.adding > .left {
  grid-row: 1 / -1;
}

@media (min-width: 1700px) {
  .adding {
    grid-template: minmax(0, 1fr) / 220px minmax(0, 1fr) minmax(0, 1fr);
  }

  .plan {
    grid-area: auto;
  }
}

ul {
  list-style: none;
  margin: 8px 0;
  padding: 0;
}

.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 8px;
  width: 100%;
  min-height: 40px;
  align-items: center;
  border-bottom: 1px solid var(--rule);
  padding: 4px 0;
}

.line[aria-pressed='true'] {
  background: var(--selected);
}

.address {
  grid-column: 1 / -1;
  font-size: var(--second);
}

.name,
.address {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.empty {
  padding: 20px 28px;
}

@media (max-width: 1100px) {
  .devices,
  .adding {
    grid-template-columns: minmax(0, 1fr);
    grid-auto-rows: max-content;
    height: auto;
    overflow: auto;
  }

  .plan {
    display: none;
  }

  .left,
  .right,
  .middle {
    overflow: visible;
  }
}
</style>
