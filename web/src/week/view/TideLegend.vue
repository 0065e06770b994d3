<script setup lang="ts">
import type { Tide } from '../../api/types'
import { useHand } from '../../hand/useHand'
import { clock, DAY, moment } from '../../time/week'
import { count, gigabytes, three } from '../../ui/figures'
import TermTip from '../../ui/TermTip.vue'

/** What the tide is of, and its figures. */
defineProps<{ tide?: Tide }>()
const ofSelection = defineModel<boolean>('ofSelection', { required: true })
const hand = useHand()
/** A moment as the end of a time: midnight is 24:00 of the day before. */
const until = (minute: number) => (minute % DAY ? moment(minute) : `${moment(minute - 1).slice(0, 3)} ${clock(DAY)}`)
</script>

<template>
  <div class="legend">
    <h2>
      <TermTip word="tide">Tide</TermTip>
      <button
        v-if="hand.selection.length"
        type="button"
        class="plain-button which"
        :aria-pressed="ofSelection"
        data-test="tide-of"
        @click="ofSelection = !ofSelection"
      >
        {{ ofSelection ? `of ${count(hand.selection.length, 'channel')}` : 'of the whole site' }}
      </button>
    </h2>
    <div class="soft">
      {{
        hand.brush ? `${moment(hand.brush.from)} to ${until(hand.brush.to)}` : 'Mbit/s written; drag to select a time'
      }}
    </div>
    <dl v-if="tide" data-test="tide-says">
      <dt>mean <span class="dash" aria-hidden="true" /></dt>
      <dd>{{ three(tide.mean) }}</dd>
      <dt>busiest, {{ moment(tide.busiestAt) }}</dt>
      <dd>{{ three(tide.busiest) }}</dd>
      <template v-if="hand.brush"
        ><dt>written in it</dt>
        <dd>{{ gigabytes((tide.mean * (hand.brush.to - hand.brush.from) * 60) / 8000) }}</dd></template
      >
      <template v-else
        ><dt>intake of recorders</dt>
        <dd>{{ three(tide.intake) }}</dd></template
      >
    </dl>
  </div>
</template>

<style scoped>
.legend {
  padding: 5px 10px 4px 12px;
  font-size: var(--second);
}

dl {
  display: grid;
  grid-template-columns: 1fr auto;
  margin: 2px 0 0;
  line-height: 1.3;
}

dt {
  color: var(--soft);
}

dd {
  margin: 0;
  text-align: right;
  font-weight: 600;
}

.dash {
  display: inline-block;
  width: 16px;
  border-top: 1px dashed var(--ink);
  vertical-align: 4px;
}

.which {
  margin-left: 4px;
  font-weight: 400;
  color: var(--base);
}

/* Where the window is low its height is that of the rows. */
@media (max-height: 559px) {
  .soft,
  dl {
    display: none;
  }
}
</style>
