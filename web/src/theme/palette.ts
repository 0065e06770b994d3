import { computed } from 'vue'

import { useTheme } from './useTheme'

export interface Palette {
  base: string
  motion: string
  alarm: string
  ink: string
  soft: string
  rule: string
  short: string
  selected: string
}

const { dark } = useTheme()

/** The colours that canvases draw with, from the theme's tokens. */
export const palette = computed<Palette>(() => {
  void dark.value
  const style = getComputedStyle(document.documentElement)
  const read = (name: string) => style.getPropertyValue(`--${name}`).trim()
  return {
    base: read('base'),
    motion: read('motion'),
    alarm: read('alarm'),
    ink: read('ink'),
    soft: read('soft'),
    rule: read('rule'),
    short: read('short'),
    selected: read('selected'),
  }
})
