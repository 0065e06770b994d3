import { createRouter, createWebHistory, type RouteComponent } from 'vue-router'

import { pages, type PageName } from './shell/pages'
import SiteShell from './shell/SiteShell.vue'
import WeekPage from './week/WeekPage.vue'

/** What shows a page of shell/pages.json; all but the first are loaded when they are opened. */
const shown: Record<PageName, RouteComponent> = {
  week: WeekPage,
  kit: () => import('./kit/KitPage.vue'),
  weeks: () => import('./weeks/WeeksPage.vue'),
  triggers: () => import('./triggers/TriggersPage.vue'),
  storage: () => import('./storage/StoragePage.vue'),
  rehearse: () => import('./rehearse/RehearsePage.vue'),
  compare: () => import('./compare/ComparePage.vue'),
  handover: () => import('./handover/HandoverPage.vue'),
  measured: () => import('./measured/MeasuredPage.vue'),
  findings: () => import('./findings/FindingsPage.vue'),
  history: () => import('./history/HistoryPage.vue'),
}

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'sites', component: () => import('./sites/SitesPage.vue') },
    { path: '/new', name: 'new', component: () => import('./sites/NewSite.vue') },
    {
      path: '/sites/:id',
      component: SiteShell,
      props: true,
      children: pages.map(({ name, path }) => ({ name, path, component: shown[name] })),
    },
    { path: '/figures', name: 'figures', component: () => import('./company/FiguresPage.vue') },
    { path: '/account', name: 'account', component: () => import('./people/AccountPage.vue') },
    { path: '/people', name: 'people', component: () => import('./people/PeoplePage.vue') },
    { path: '/audit', name: 'audit', component: () => import('./people/AuditPage.vue') },
    {
      path: '/invitation',
      name: 'invitation',
      component: () => import('./people/InvitationPage.vue'),
      meta: { public: true },
    },
    { path: '/shared', name: 'shared', component: () => import('./people/SharedPage.vue'), meta: { public: true } },
    { path: '/:rest(.*)*', name: 'nowhere', component: () => import('./sites/NowherePage.vue') },
  ],
})

/** Which variant is open goes along from page to page of a site. */
router.beforeEach((to, from) => {
  if (!from.query.variant || to.query.variant !== undefined || !to.params.id || to.params.id !== from.params.id)
    return true
  return { ...to, query: { ...to.query, variant: from.query.variant } }
})
