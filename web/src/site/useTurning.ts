import { useRoute, useRouter } from 'vue-router'

import { notice } from '../ui/notice'
import { useSite } from './useSite'

/** Goes from one variant of the site to another. */
export function useTurning() {
  const site = useSite()
  const router = useRouter()
  const route = useRoute()

  /** Opens another variant, on the page that is open. */
  function show(id: string) {
    if (id === site.planId) return Promise.resolve()
    return router.push({ name: route.name!, params: route.params, query: { ...route.query, variant: id } })
  }

  /** The next one, for a key. */
  function next() {
    const here = site.variants.filter((v) => !v.removed)
    const to = here[(here.findIndex((v) => v.id === site.planId) + 1) % here.length]
    if (!to || to.id === site.planId) {
      notice('This site has one variant. Others are made in the menu at its name, above.', { seconds: 4 })
      return
    }
    void show(to.id)
    notice(to.name || 'without a name', { seconds: 1.5 })
  }

  return { show, next }
}
