<script setup lang="ts">
import FilePick from '../../../ui/FilePick.vue'
import SegmentChoice from '../../../ui/SegmentChoice.vue'
import type { Brush } from './useBrush'
import type { Tool } from './things'
import type { Picture } from './usePicture'
import type { useStill } from './useStill'

/** What is drawn next, and the still that it is drawn on. */
const { picture, brush, still } = defineProps<{
  picture: Picture
  brush: Brush
  still: ReturnType<typeof useStill>
}>()
const { tool, laid } = picture
const tools: [Tool, string, string][] = [
  ['watch', 'Watch', 'An area in which motion counts'],
  ['ignore', 'Ignore', 'An area in which motion counts for nothing'],
  ['brush', 'Brush', 'An area painted in cells'],
  ['walk', 'Walk', 'How wanted things come, by their feet'],
  ['patch', 'Patch that moves', 'Where something moves that nobody wants'],
  ['person', 'A person', 'A person of 1.7 m where one would stand; two tell distances'],
]
function take(t: Tool) {
  const isSame = tool.value === t
  picture.letGo()
  picture.standAt()
  if (!isSame) tool.value = t
}
</script>

<template>
  <div class="tools" role="toolbar" aria-label="What to draw">
    <button
      v-for="[t, name, title] in tools"
      :key="t"
      type="button"
      class="act quiet"
      :class="{ here: tool === t }"
      :aria-pressed="tool === t"
      :title="title"
      :data-tool="t"
      @click="take(t)"
    >
      {{ name }}
    </button>
    <span class="picture">
      <FilePick
        quiet
        :label="still.busy.value ? 'Taking it in…' : still.id.value ? 'Another picture' : 'Give it a picture'"
        accept="image/jpeg,image/png,image/webp"
        data-test="give-still"
        @pick="still.give"
      />
      <button
        v-if="still.id.value"
        type="button"
        class="plain-button link"
        data-test="remove-still"
        @click="still.remove"
      >
        Without
      </button>
    </span>
    <span class="soft hint">
      <template v-if="tool === 'brush'">
        <SegmentChoice
          :model-value="String(brush.size.value)"
          label="Width of the brush, cells"
          :ways="[
            ['1', '1'],
            ['3', '3'],
            ['5', '5'],
          ]"
          @update:model-value="(w) => brush.widen(Number(w))"
        />
        drag paints; from painted cells, or with Alt, it removes · Esc ends
      </template>
      <template v-else-if="tool === 'person'">click where the feet are</template>
      <template v-else-if="tool">{{
        laid.length
          ? 'double click or Enter ends it, Esc gives up'
          : 'click its points; Enter on the picture lays a plain one'
      }}</template>
      <template v-else>drag corners · Alt+click removes one · drop or paste a picture</template>
    </span>
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 6px;
  align-items: center;
  padding-bottom: 6px;
  font-size: var(--second);
}

.tools .here {
  background: var(--base);
  color: var(--on-base);
}

.picture {
  display: flex;
  gap: 8px;
  margin-left: auto;
}

.hint {
  width: 100%;
  min-height: 20px;
  display: flex;
  gap: 8px;
  align-items: center;
}
</style>
