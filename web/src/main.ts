import '@fontsource/atkinson-hyperlegible-next/latin-400.css'
import '@fontsource/atkinson-hyperlegible-next/latin-600.css'
import './ui/elements.css'
import './theme/tokens.css'
import './theme/page.css'
import './theme/print.css'

import { ID_INJECTION_KEY } from 'element-plus'
import { createPinia } from 'pinia'
import { createApp } from 'vue'

import { loadFormat } from './api/format'
import { loadMe } from './api/me'
import App from './App.vue'
import { router } from './router'

void loadFormat()
void loadMe()
createApp(App)
  .use(createPinia())
  .use(router)
  // What opens is shown in the landmark of index.html with this number.
  .provide(ID_INJECTION_KEY, { prefix: 1, current: 0 })
  .mount('#app')
