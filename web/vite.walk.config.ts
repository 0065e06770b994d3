import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'
import { VitePWA } from 'vite-plugin-pwa'

// The page for phones is built by itself: it shares nothing with other pages but what it is made of. So it is small,
// and the service worker keeps just what lies below assets/walk.
export default defineConfig({
  plugins: [
    vue(),
    VitePWA({
      strategies: 'injectManifest',
      srcDir: 'src/walk',
      filename: 'worker.ts',
      injectRegister: false,
      manifest: false,
      injectManifest: {
        globPatterns: ['walk.html', 'walk/*', 'mark.svg', 'assets/walk/**'],
        globIgnores: ['**/*.woff', '**/PasswordMeter*'],
        dontCacheBustURLsMatching: /^assets\//,
      },
    }),
  ],
  publicDir: false,
  define: { __VUE_OPTIONS_API__: 'false' },
  build: {
    target: 'es2022',
    emptyOutDir: false,
    assetsDir: 'assets/walk',
    assetsInlineLimit: 0,
    rollupOptions: { input: 'walk.html' },
  },
})
