import { watchDebounced } from '@vueuse/core'
import { computed, defineComponent, onMounted, ref } from 'vue'
import { useRoute } from 'vue-router'

import { useHand } from '../hand/useHand'
import { wordText } from '../site/asText'
import { useInAddress } from '../site/useInAddress'
import { useSite } from '../site/useSite'
import { fromMonday, toShown, WEEK } from '../time/week'

const panes = ['channel', 'hours', 'events', 'disk'] as const

/**
 * What is in hand on Week stands in its address: the channels that are selected, the part of the pane, and the time in
 * view when it has come to rest. A link brings them, and back and forward go through what was looked at.
 */
export default defineComponent({
  setup() {
    const site = useSite()
    const hand = useHand()
    const { query } = useRoute()
    if (query.channels && !query.pane) hand.panel = 'channel' // what is decided about them
    // What is in hand as the page is entered does not make way for an address that says nothing of it.
    const entered = ref(false)
    onMounted(() => (entered.value = true))
    useInAddress(
      'channels',
      computed({
        get: () => (entered.value ? hand.selection.join() || undefined : undefined),
        set: (text) => (hand.selected = (text ?? '').split(',').filter((id) => site.channels.has(id))),
      }),
    )
    useInAddress('pane', wordText(computed({ get: () => hand.panel, set: (p) => (hand.panel = p) }), panes, 'channel'))
    const viewed = () => {
      const { from, to } = fromMonday(hand.view)
      return hand.isWhole ? undefined : `${from}-${to}`
    }
    const rested = ref(viewed())
    watchDebounced(viewed, (text) => (rested.value = text), { debounce: 300 })
    useInAddress(
      'time',
      computed({
        get: () => (entered.value ? rested.value : undefined),
        set: (text) => {
          rested.value = text || undefined
          const [from, to] = (text ?? '').split('-').map(Number)
          if (!to || !(from! >= 0 && from! < WEEK && to <= WEEK)) return (hand.day = undefined)
          const at = toShown(from!)
          hand.look(at, at + ((to - from! + WEEK) % WEEK || WEEK))
        },
      }),
      true,
    )
    return () => null
  },
})
