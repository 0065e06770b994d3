<script setup lang="ts">
import { ElDialog } from 'element-plus'

import { version } from '../api/format'
import words from '../ui/words.json'
import { pages } from './pages'

/** Keys, gestures and our own words, on "?". */
const open = defineModel<boolean>({ required: true })

const sheets = [
  {
    name: 'Everywhere',
    keys: [
      ['Ctrl+K', 'find a channel, a page or a command'],
      ['Ctrl+Z, Ctrl+Y', 'undo, redo'],
      ...pages.map((p) => [`Alt+Shift+${p.key}`, p.title]),
      ['Alt+Shift+V', 'the next variant of the site'],
      ['Alt+Shift+L', 'copy a link to what is open'],
      ['Ctrl+C', 'with nothing marked: the table pointed at last, or the verdict, as cells'],
      ['?', 'this sheet'],
      ['Esc', 'leave what is in hand'],
    ],
  },
  {
    name: 'Painting the week',
    keys: [
      ['1 … 9', 'pick a duty'],
      ['drag', 'paint; Shift snaps to 5 minutes, Ctrl to 1'],
      ['double click', 'paint the day; on a name, the week'],
      ['Alt+click', 'pick the duty under the pointer'],
      ['drag a day’s name', 'copy it onto other days'],
      ['drag a channel’s name', 'give its week to others'],
      ['right click, menu key', 'what else can be done with a week'],
    ],
  },
  {
    name: 'Without a mouse',
    keys: [
      ['arrows', 'move over the week; with Ctrl by days'],
      ['Shift+arrows', 'extend'],
      ['a digit, Enter', 'paint'],
      ['Space', 'select the channel'],
      ['Ctrl+C, Ctrl+V', 'copy a day, or the week of the channel selected'],
    ],
  },
  {
    name: 'Looking closer',
    keys: [
      ['Ctrl+wheel, + −', 'closer, and back'],
      ['Shift+wheel, [ ]', 'along the week'],
      ['0', 'the whole week'],
      ['drag an edge', 'move it, to the minute (a day or less in view)'],
      ['drag on the tide', 'select a time'],
    ],
  },
  {
    name: 'The channel table',
    keys: [
      ['Enter, F2, type', 'write in a cell'],
      ['Ctrl+Enter', 'write in all selected'],
      ['Ctrl+D', 'fill down'],
      ['Ctrl+C, Ctrl+V', 'copy, paste a block'],
      ['Alt+↑ ↓', 'renumber'],
      ['Delete', 'empty the cells'],
    ],
  },
  {
    name: 'A picture',
    keys: [
      ['arrows', 'move a corner or a person; with Shift ten times as far'],
      ['Delete', 'remove a corner'],
      ['Enter', 'finish what is drawn'],
      ['Backspace', 'take back its last corner'],
      ['arrows, Space', 'with the brush: move, mark a cell'],
    ],
  },
  {
    name: 'What it causes',
    keys: [
      ['↑ ↓, Page, Home, End', 'along a list'],
      ['Enter, Space', 'pick one, pick one more'],
      ['Ctrl+A, Esc', 'pick all, none'],
      ['arrows', 'on a week of hours: along it, and by days'],
    ],
  },
  {
    name: 'What it would take',
    keys: [['arrows, Page ↑ ↓', 'along the curve, by one day, by five']],
  },
  {
    name: 'Rehearse',
    keys: [
      ['← →, Home, End', 'along the days'],
      ['+ − 0', 'closer, back, all days'],
      ['N', 'the next missed event'],
      ['Space', 'watching: play, pause'],
      ['← →', 'watching: back, on'],
    ],
  },
]
</script>

<template>
  <ElDialog v-model="open" title="Keys, gestures and words" width="760" data-test="shortcuts">
    <div class="sheets">
      <section v-for="s in sheets" :key="s.name">
        <h3>{{ s.name }}</h3>
        <dl>
          <template v-for="[k, what] in s.keys" :key="k"
            ><dt>{{ k }}</dt>
            <dd>{{ what }}</dd></template
          >
        </dl>
      </section>
    </div>
    <section>
      <h3>Words</h3>
      <dl data-test="words">
        <template v-for="(meaning, word) in words" :key="word"
          ><dt>{{ word }}</dt>
          <dd>{{ meaning }}</dd></template
        >
      </dl>
    </section>
    <p class="soft" data-test="version">Wakefield {{ version }}</p>
  </ElDialog>
</template>

<style scoped>
.sheets {
  columns: 2;
  column-gap: 28px;
}

section {
  break-inside: avoid;
  margin-bottom: 12px;
}

h3 {
  color: var(--base);
}

dl {
  display: grid;
  grid-template-columns: 128px minmax(0, 1fr);
  gap: 1px 10px;
  margin: 2px 0;
}

dt {
  font-weight: 600;
}

dd {
  margin: 0;
}

@media (max-width: 760px) {
  .sheets {
    columns: 1;
  }
}
</style>
