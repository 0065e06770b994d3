import { h, type Component } from 'vue'
import { createRouter, createWebHistory, type RouteComponent } from 'vue-router'

import { pages, type PageName } from './shell/pages'
import SiteShell from './shell/SiteShell.vue'
import { later } from './ui/later'
import WeekPage from './week/WeekPage.vue'

const NotFetched = later(async () => (await import('./shell/reserve')).NotFetched)

/** A page that is loaded when it is opened; without a connection it says so, and opens when there is one again. */
const opened = (load: () => Promise<{ default: Component }>) => () =>
  load().catch(() => ({ render: () => h(NotFetched, { load }) }))

/** What shows a page of shell/pages.json; all but the first are loaded when they are opened. */
const shown: Record<PageName, RouteComponent> = {
  week: WeekPage,
  kit: opened(() => import('./kit/KitPage.vue')),
  weeks: opened(() => import('./weeks/WeeksPage.vue')),
  triggers: opened(() => import('./triggers/TriggersPage.vue')),
  storage: opened(() => import('./storage/StoragePage.vue')),
  rehearse: opened(() => import('./rehearse/RehearsePage.vue')),
  compare: opened(() => import('./compare/ComparePage.vue')),
  handover: opened(() => import('./handover/HandoverPage.vue')),
  measured: opened(() => import('./measured/MeasuredPage.vue')),
  findings: opened(() => import('./findings/FindingsPage.vue')),
  history: opened(() => import('./history/HistoryPage.vue')),
}

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'sites', component: opened(() => import('./sites/SitesPage.vue')) },
    { path: '/new', name: 'new', component: opened(() => import('./sites/NewSite.vue')) },
    {
      path: '/sites/:id',
      component: SiteShell,
      props: true,
      children: pages.map(({ name, path }) => ({ name, path, component: shown[name] })),
    },
    { path: '/figures', name: 'figures', component: opened(() => import('./company/FiguresPage.vue')) },
    { path: '/account', name: 'account', component: opened(() => import('./people/AccountPage.vue')) },
    { path: '/people', name: 'people', component: opened(() => import('./people/PeoplePage.vue')) },
    { path: '/audit', name: 'audit', component: opened(() => import('./people/AuditPage.vue')) },
    {
      path: '/invitation',
      name: 'invitation',
      component: opened(() => import('./people/InvitationPage.vue')),
      meta: { public: true },
    },
    {
      path: '/shared',
      name: 'shared',
      component: opened(() => import('./people/SharedPage.vue')),
      meta: { public: true },
    },
    { path: '/:rest(.*)*', name: 'nowhere', component: opened(() => import('./sites/NowherePage.vue')) },
  ],
})

/** Which variant is open goes along from page to page of a site. */
router.beforeEach((to, from) => {
  if (!from.query.variant || to.query.variant !== undefined || !to.params.id || to.params.id !== from.params.id)
    return true
  return { ...to, query: { ...to.query, variant: from.query.variant } }
})
