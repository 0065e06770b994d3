<script setup lang="ts">
import { computed, ref } from 'vue'

import type { WrittenHours } from '../api/types'
import { useSite } from '../site/useSite'
import { count } from '../ui/figures'
import { later } from '../ui/later'
import { useOnce } from '../ui/useOnce'
import SegmentChoice from '../ui/SegmentChoice.vue'
import TermTip from '../ui/TermTip.vue'
import DutySwatch from './DutySwatch.vue'
import { explain } from './explain'
import TypedHours from './TypedHours.vue'
import { useHand } from '../hand/useHand'

defineProps<{ paint?: (channels: string[], hours: WrittenHours) => Promise<void> }>()
const site = useSite()
const hand = useHand()
const duties = computed(() => site.plan?.duties ?? [])

const DutyEditor = later(() => import('./DutyEditor.vue'))

/** The duty in the editor; an empty id is a new one. */
const editing = ref<string>()
const edited = useOnce(() => editing.value !== undefined)

const picked = computed(() => site.duties.get(hand.duty))
const who = computed(() => {
  const n = hand.selection.length
  return n ? `painting ${count(n, 'channel')}` : 'painting the rows you drag over'
})
const meanings = [
  ['each day', 'each day', 'The same hours on every day dragged over'],
  ['right through', 'right through', 'Every minute from the first to the last'],
] as const
</script>

<template>
  <section class="shelf" aria-label="Duties">
    <div class="line">
      <span class="heading"><TermTip word="duty">Duties</TermTip></span>
      <div class="duties" role="radiogroup" aria-label="Duty to paint">
        <button
          v-for="(d, i) in duties"
          :key="d.id"
          type="button"
          role="radio"
          class="duty"
          :class="{ picked: d.id === hand.duty }"
          :aria-checked="d.id === hand.duty"
          :title="explain(d)"
          :data-duty="d.id"
          @click="hand.picked = d.id"
          @dblclick="editing = d.id"
        >
          <DutySwatch :duty="d" /> {{ d.name }} <kbd v-if="i < 9">{{ i + 1 }}</kbd>
        </button>
      </div>
      <button
        type="button"
        class="duty plain"
        aria-haspopup="dialog"
        data-test="new-duty"
        title="Make a new duty"
        @click="editing = ''"
      >
        + New
      </button>
    </div>
    <div class="brush">
      <b data-test="painting">{{ who }}</b>
      <SegmentChoice v-model="hand.means" label="What a drag over several days means" :ways="meanings" />
      <TypedHours
        v-if="paint"
        label="or type hours"
        act="Paint"
        :title="`${picked?.name}, on ${count(hand.selection.length, 'channel')}`"
        :refuse="hand.selection.length ? '' : 'Select the channels first.'"
        :keep="(hours) => paint!(hand.selection, hours)"
      />
      <button
        type="button"
        class="plain-button edit"
        aria-haspopup="dialog"
        data-test="edit-duty"
        @click="editing = hand.duty"
      >
        Change “{{ site.duties.get(hand.duty)?.name }}”
      </button>
      <span
        class="soft explains"
        :title="`${picked ? `${explain(picked)}. ` : ''}Shift snaps to 5 min, Ctrl to 1; ? lists all keys`"
        data-test="explains"
        >{{ picked ? `${explain(picked)}.` : '' }}
        <span class="hint">Shift snaps to 5 min, Ctrl to 1 · ? lists all keys</span></span
      >
    </div>
    <DutyEditor v-if="edited" v-model="editing" />
  </section>
</template>

<style scoped>
.shelf {
  padding: 7px 12px 4px 14px;
}

.line {
  display: flex;
  gap: 5px;
  align-items: flex-start;
}

.duties {
  display: flex;
  flex: 0 1 auto;
  flex-wrap: wrap;
  gap: 5px;
  min-width: 0;
}

.heading {
  padding-top: 5px;
  color: var(--soft);
}

.duty {
  display: flex;
  align-items: center;
  gap: 7px;
  flex: none;
  padding: 4px 9px;
  white-space: nowrap;
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 6px;
  cursor: pointer;
}

.duty:hover {
  border-color: var(--soft);
}

.duty.picked {
  border-color: var(--base);
  box-shadow: inset 0 0 0 1px var(--base);
  font-weight: 600;
}

.duty.plain {
  background: none;
  border-style: dashed;
}

.edit {
  color: var(--base);
}

kbd {
  font: inherit;
  font-weight: 400;
  font-size: var(--axis);
  color: var(--soft);
}

.brush {
  display: flex;
  align-items: center;
  gap: 14px;
  padding-top: 5px;
  font-size: var(--second);
  white-space: nowrap;
  overflow: hidden;
}

.explains {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
}

.hint {
  margin-left: 10px;
}

@media (max-width: 1000px) {
  .heading {
    display: none;
  }

  .shelf {
    padding: 4px 8px 3px;
  }

  .duties {
    flex-wrap: nowrap;
    overflow-x: auto;
    scrollbar-width: none;
  }

  .duty {
    flex: none;
    padding: 1px 7px;
  }

  .brush {
    gap: 10px;
    overflow-x: auto;
    scrollbar-width: none;
  }
}

.brush b {
  color: var(--base);
}

/* Where the window is low, what paints stands in one line with how. */
@media (min-width: 501px) and (max-width: 1000px) and (max-height: 520px) {
  .shelf {
    display: flex;
    gap: 10px;
  }

  .line,
  .brush {
    flex: 1 1 50%;
    min-width: 0;
    overflow-x: auto;
    scrollbar-width: none;
    padding-top: 0;
  }
}

/* On paper the shelf is the legend of the ribbons: nothing is painted there. */
@media print {
  .brush,
  .duty.plain,
  .duty kbd {
    display: none;
  }

  .duty,
  .duty.picked {
    border-color: transparent;
    box-shadow: none;
    font-weight: 400;
  }
}
</style>
