import { createRouter, createWebHistory } from 'vue-router'

import SitesPage from './sites/SitesPage.vue'
import SiteShell from './shell/SiteShell.vue'
import WeekPage from './week/WeekPage.vue'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'sites', component: SitesPage },
    { path: '/new', name: 'new', component: () => import('./sites/NewSite.vue') },
    {
      path: '/sites/:id',
      component: SiteShell,
      props: true,
      children: [
        { path: '', name: 'week', component: WeekPage },
        { path: 'kit/:part?', name: 'kit', component: () => import('./kit/KitPage.vue') },
        { path: 'weeks', name: 'weeks', component: () => import('./weeks/WeeksPage.vue') },
        { path: 'findings', name: 'findings', component: () => import('./findings/FindingsPage.vue') },
        { path: 'history', name: 'history', component: () => import('./history/HistoryPage.vue') },
      ],
    },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
})
