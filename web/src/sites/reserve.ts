/** What the list of sites needs only after its first look, fetched together. */
export { default as KeptSearches } from './KeptSearches.vue'
export { default as MovedSites } from './MovedSites.vue'
export { default as SiteHits } from './SiteHits.vue'
export { default as SitesGlance } from './SitesGlance.vue'
export { default as SitesInHand } from './SitesInHand.vue'
