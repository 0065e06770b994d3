<script setup lang="ts">
import { computed } from 'vue'

import type { Channel } from '../../api/types'
import { initials, others } from '../../site/present'
import { useEntered } from '../../site/useEntered'
import { useSite } from '../../site/useSite'
import DaysBar from '../../ui/DaysBar.vue'
import RibbonCanvas from './RibbonCanvas.vue'
import { weekInWords } from './sentence'
import { placeIn, type Span } from '../../time/week'
import { useHand } from '../../hand/useHand'

const props = defineProps<{
  channel: Channel
  width: number
  height: number
  shows: string
  recorder?: number
  selected: boolean
  target?: boolean
  cursor?: Span
}>()
defineEmits<{ select: [event: MouseEvent]; menu: [event: MouseEvent] }>()

const site = useSite()
const entered = useEntered()
const figures = computed(() => entered.figuresOf(props.channel.id))
const isShort = computed(() => !!figures.value?.short)

const words = computed(() => weekInWords(props.channel, site.ribbons.get(props.channel.id), site.duties))
const hand = useHand()
const recorderName = computed(() => site.plan?.recorders.find((r) => r.id === props.channel.recorder)?.name ?? '')

/** Whether a change of this channel waits for the server to come back. */
const waits = computed(() => site.state === 'away' && site.waitingOn.has(props.channel.id))
const none: Span[] = []
/** The stroke on this row; the same empty list where there is none, so that nothing is drawn again. */
const stroke = computed(() => (hand.stroke?.channels.includes(props.channel.id) ? hand.spans : none))
/** Where another duty is entered than planned. */
const otherwise = computed(() => entered.stretches.get(props.channel.id) ?? [])
/** Who else has this channel in hand, in the variant that is open. */
const here = computed(() =>
  others.value.filter((o) => o.about === props.channel.id && o.plan === site.planId && o.page === 'week'),
)
const place = (s: Span) => placeIn(hand.view, s)
</script>

<template>
  <div
    class="row"
    :class="{ selected, target, waits }"
    role="row"
    :style="{ height: `${height}px` }"
    :aria-selected="selected"
    :data-channel="channel.id"
  >
    <div class="channel" :class="{ several: recorder }" role="rowheader" @click="$emit('select', $event)">
      <span
        class="number soft"
        :title="recorder ? `Channel ${channel.number} of ${recorderName}` : `Channel ${channel.number}`"
        >{{ recorder ? `${recorder}·${channel.number}` : channel.number }}</span
      >
      <button
        type="button"
        class="plain-button more"
        tabindex="-1"
        aria-haspopup="menu"
        :aria-label="`What can be done with the week of ${channel.name}`"
        :data-menu="channel.id"
        @click.stop="$emit('menu', $event)"
      >
        ⋯
      </button>
      <span class="name" :title="channel.name">{{ channel.name }}</span>
      <span
        v-if="here.length"
        class="present"
        data-test="here"
        :title="`${here.map((o) => o.name).join(', ')} looks at this channel`"
        >{{ here.map((o) => initials(o.name)).join(' ') }}</span
      >
      <span v-if="channel.noCamera" class="soft kept">no camera</span>
      <span v-else class="kept" :class="{ short: isShort }" :data-kept="channel.id">
        {{ shows }}
        <DaysBar
          v-if="figures?.requiredDays"
          :kept="figures.retentionDays"
          :required="figures.requiredDays"
          :short="figures.short"
        />
      </span>
    </div>
    <div class="time" role="gridcell" :aria-label="words">
      <RibbonCanvas :id="channel.id" :empty="channel.noCamera" :width="width" :height="height - 3" />
      <div
        v-for="(s, i) in otherwise"
        :key="`entered-${i}`"
        class="entered"
        :style="place(s)"
        :title="`entered: ${s.name}`"
        data-test="entered"
      />
      <div v-for="(s, i) in stroke" :key="i" class="stroke" :style="place(s)" />
      <div v-if="cursor" class="cursor" :style="place(cursor)" />
    </div>
  </div>
</template>

<style scoped>
/* Over the end of the name, so that the row is as it was. */
.present {
  position: absolute;
  right: 76px;
  top: 50%;
  transform: translateY(-50%);
  background: var(--sheet);
  font-size: var(--axis);
  color: var(--soft);
  border: 1px solid var(--soft);
  border-radius: 6px;
  padding: 0 4px;
}

.row {
  display: grid;
  grid-template-columns: var(--channel-width) minmax(0, 1fr);
}

.channel {
  position: relative;
  display: grid;
  grid-template-columns: 22px minmax(0, 1fr) 62px;
  gap: 7px;
  align-items: center;
  padding: 0 10px 0 8px;
  border-left: 3px solid transparent;
  cursor: pointer;
  user-select: none;
}

.waits .time {
  outline: 1px dashed var(--short);
  outline-offset: -1px;
}

.waits .name::after {
  content: ' · not saved';
  color: var(--short);
}

.channel.several {
  grid-template-columns: 34px minmax(0, 1fr) 62px;
}

.row:hover .channel,
.target .channel {
  background: var(--band);
}

.target {
  box-shadow: inset 0 0 0 1px var(--base);
}

.more {
  position: absolute;
  right: 74px;
  width: 24px;
  height: 100%;
  text-align: center;
  opacity: 0;
  background: var(--band);
}

.row:hover .more,
.more:focus-visible {
  opacity: 1;
}

.selected .channel,
.selected:hover .channel {
  background: var(--selected);
  border-left-color: var(--base);
}

.selected .more {
  background: var(--selected);
}

.selected .time {
  background: color-mix(in srgb, var(--selected) 45%, transparent);
}

.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.kept {
  position: relative;
  text-align: right;
  white-space: nowrap;
  font-size: var(--second);
  padding-bottom: 4px;
}

.kept.short {
  font-weight: 600;
}

.time {
  position: relative;
  padding-top: 2px;
  overflow: hidden;
  touch-action: none;
}

/* What the recorder takes in place of what is planned. */
.entered {
  position: absolute;
  bottom: 0;
  height: 6px;
  border: 1px solid var(--ink);
  border-bottom-width: 2px;
  background: repeating-linear-gradient(135deg, var(--ink) 0 1px, transparent 1px 3px);
}

.cursor {
  position: absolute;
  top: 0;
  bottom: 0;
  outline: 2px solid var(--ink);
  outline-offset: -2px;
  box-shadow: inset 0 0 0 4px var(--sheet); /* seen on every colour, light and dark */
  pointer-events: none;
}

@media (max-width: 500px) {
  .channel {
    grid-template-columns: minmax(0, 1fr) 50px;
  }

  .number {
    display: none;
  }

  .time {
    touch-action: auto;
  }
}
</style>
