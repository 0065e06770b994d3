<script setup lang="ts">
import { ref } from 'vue'

import PlanGlance from '../glance/PlanGlance.vue'
import type { Revision } from '../api/types'
import { useSite } from '../site/useSite'
import { days } from '../ui/figures'
import OnSite from './OnSite.vue'
import RevisionPreview from './RevisionPreview.vue'
import TakeBack from './TakeBack.vue'
import { useHistory } from './useHistory'
import { vTyped } from '../ui/typed'
import TermTip from '../ui/TermTip.vue'
import { moment } from '../time/dates'
import { numberText } from '../site/asText'
import { useInAddress } from '../site/useInAddress'

/** What was changed, by whom and when; a look at how it stood then, and the way back. */
const site = useSite()
const { person, words, revisions, more, failed, again, loadMore, rename, moved } = useHistory()
const previewed = ref<number>()
useInAddress('revision', numberText(previewed), true)
const naming = ref<number>()

function keepName(r: Revision, field: EventTarget | null) {
  naming.value = undefined
  void rename(r, (field as HTMLInputElement).value.trim())
}

const vFocus = { mounted: (field: HTMLInputElement) => field.select() }

const kinds = { made: '', edit: '', undo: 'Undone: ', redo: 'Done again: ' }
</script>

<template>
  <section class="history" aria-label="History">
    <h1><TermTip word="revision">History</TermTip></h1>
    <p class="soft">
      Every change is saved at once. Ctrl+Z undoes your last one; any single one can be taken back, and returning to a
      revision is a new change: all of it can be undone too.
    </p>
    <p v-if="failed" class="short">{{ failed }} <button type="button" @click="again()">Try again</button></p>
    <p class="filter">
      <input
        v-model="person"
        type="search"
        aria-label="Changes of"
        placeholder="Person"
        maxlength="60"
        data-test="history-person"
      />
      <input
        v-model="words"
        type="search"
        aria-label="Changes that say"
        placeholder="Channel, or words"
        maxlength="200"
        data-test="history-words"
      />
    </p>
    <OnSite />
    <div class="columns two">
      <ol>
        <li
          v-for="(r, i) in revisions"
          :key="r.number"
          :class="{ undone: r.kind === 'undo', here: r.number === previewed }"
        >
          <span class="number soft">{{ r.number }}</span>
          <span>
            <input
              v-if="naming === r.number"
              v-focus
              v-typed="r.name"
              class="naming"
              maxlength="60"
              :aria-label="`Name of revision ${r.number}`"
              @change="keepName(r, $event.target)"
              @blur="naming = undefined"
              @keydown.enter="($event.target as HTMLElement).blur()"
              @keydown.esc.stop="((($event.target as HTMLInputElement).value = r.name), (naming = undefined))"
            />
            <b v-else-if="r.name" class="named">{{ r.name }}</b>
            {{ kinds[r.kind] }}{{ r.sentence }}
          </span>
          <span
            class="number kept"
            :title="
              r.keptDays == null
                ? ''
                : `With this revision the channel nearest to what it must keep was kept ${days(r.keptDays)}, as worked out then`
            "
          >
            <template v-if="r.keptDays != null"
              ><i v-if="moved(i)" class="soft">{{ moved(i) }}</i> {{ days(r.keptDays) }}</template
            >
          </span>
          <span class="soft">{{ r.author }}</span>
          <time class="soft" :datetime="r.at">{{ moment(r.at) }}</time>
          <span class="acts">
            <button
              type="button"
              class="plain-button link"
              :aria-pressed="r.number === previewed"
              :data-preview="r.number"
              @click="previewed = previewed === r.number ? undefined : r.number"
            >
              Look at it
            </button>
            <button
              v-if="r.number !== site.version"
              type="button"
              class="plain-button link"
              :disabled="site.role !== 'planner'"
              :data-return="r.number"
              @click="site.returnTo(r.number)"
            >
              Return
            </button>
            <span v-else class="soft">as it stands</span>
            <TakeBack v-if="r.kind === 'edit'" :revision="r" />
            <button type="button" class="plain-button link" :data-name-revision="r.number" @click="naming = r.number">
              {{ r.name ? 'Rename' : 'Name it' }}
            </button>
          </span>
        </li>
      </ol>
      <RevisionPreview v-if="previewed" :revision="previewed" />
      <p v-else class="soft none">
        {{
          revisions.length
            ? 'Look at a revision to see here how the site stood then.'
            : person || words
              ? 'No change is like that.'
              : ''
        }}
      </p>
    </div>
    <button v-if="more" type="button" @click="loadMore">Earlier changes</button>
    <PlanGlance v-else-if="!previewed && revisions.length" />
  </section>
</template>

<style scoped>
.history {
  display: flex;
  flex-direction: column;
  height: 100%;
  overflow: auto;
  padding: 20px 28px;
}

.history > button {
  align-self: start;
}

.history > .glance {
  padding: 0;
}

ol {
  list-style: none;
  margin: 0 0 16px;
  padding: 0;
}

.filter {
  display: flex;
  gap: 8px;
  margin: 0 0 10px;
}

.none {
  margin: 6px 0;
}

@media (min-width: 900px) {
  .columns.two {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 430px;
    gap: 20px;
    align-items: start;
  }
}

.two li {
  grid-template-columns: 34px minmax(0, 1fr) 96px 80px;
}

.two li time,
.two li .acts {
  grid-column: 2;
}

@media (max-width: 500px) {
  .two li {
    grid-template-columns: 20px minmax(0, 1fr) auto;
    gap: 0 8px;
  }

  .two li > .soft:not(.number, time) {
    grid-column: 2;
  }
}

li.here {
  background: var(--selected);
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
}

li {
  display: grid;
  grid-template-columns: 44px minmax(0, 1fr) 96px 110px 145px 220px;
  gap: 0 16px;
  padding: 5px 0;
  border-bottom: 1px solid var(--rule);
}

.named {
  display: block;
}

.naming {
  display: block;
  width: min(320px, 100%);
}

.kept i {
  font-style: normal;
  margin-right: 6px;
}

.undone {
  color: var(--soft);
}
</style>
