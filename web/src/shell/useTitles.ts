import { useTitle } from '@vueuse/core'
import { computed } from 'vue'
import { useRoute } from 'vue-router'

import { useHand } from '../hand/useHand'
import { useSite } from '../site/useSite'
import { pages } from './pages'

/** The title of the window: the page, the channel in hand and the site, so that tabs and bookmarks are told apart. */
export function useTitles() {
  const route = useRoute()
  const site = useSite()
  const hand = useHand()
  const page = computed(() => pages.find((p) => p.name === route.name))
  const part = computed(() => page.value?.parts?.find((p) => (p.part ?? '') === (route.params.part || '')))
  const thing = computed(() => (hand.selection.length === 1 ? site.channels.get(hand.selection[0]!)?.name : undefined))
  useTitle(
    computed(() =>
      [part.value?.title ?? page.value?.title, thing.value, site.plan?.site.name, 'Wakefield']
        .filter(Boolean)
        .join(' · '),
    ),
  )
}
