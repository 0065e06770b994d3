import '@fontsource/atkinson-hyperlegible-next/latin-400.css'
import '@fontsource/atkinson-hyperlegible-next/latin-600.css'
import '@fontsource/atkinson-hyperlegible-next/latin-700.css'
import './ui/elements.css'
import './theme/tokens.css'
import './theme/page.css'
import './theme/print.css'

import { createPinia } from 'pinia'
import { createApp } from 'vue'

import { loadFormat } from './api/format'
import { loadMe } from './api/me'
import App from './App.vue'
import { router } from './router'

void loadFormat()
void loadMe()
createApp(App).use(createPinia()).use(router).mount('#app')
