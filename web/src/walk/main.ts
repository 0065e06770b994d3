import '@fontsource/atkinson-hyperlegible-next/latin-400.css'
import '@fontsource/atkinson-hyperlegible-next/latin-600.css'
import '../theme/tokens.css'
import '../theme/page.css'
import './walk.css'

import { createApp } from 'vue'

import { loadFormat } from '../api/format'
import { loadMe } from '../api/me'
import WalkApp from './WalkApp.vue'

void loadFormat()
void loadMe()
createApp(WalkApp).mount('#app')
