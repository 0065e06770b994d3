import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [vue()],
  define: { __VUE_OPTIONS_API__: 'false' }, // neither our components nor those that we use are written with it
  build: {
    target: 'es2022',
    chunkSizeWarningLimit: 1200,
    modulePreload: { polyfill: false }, // a browser that does not preload fetches when it imports
    rolldownOptions: {
      output: {
        codeSplitting: {
          // Each file costs a request: what every page begins with is one, and what several pages share is few.
          groups: [
            { name: 'start', tags: ['$initial'], priority: 2 },
            {
              name: 'fields',
              test: /element-plus|src[\\/](ui|habits|hand|duties|findings|disk)[\\/]/,
              minShareCount: 3,
              priority: 1,
              entriesAware: true,
              entriesAwareMergeThreshold: 12000,
            },
          ],
        },
      },
    },
    assetsInlineLimit: 0, // the page's security policy allows no data: scripts or fonts
  },
  server: { proxy: { '/api': 'http://127.0.0.1:8460' } },
})
