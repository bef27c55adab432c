import '@fontsource-variable/atkinson-hyperlegible-next/wght.css'
import '@fontsource-variable/bricolage-grotesque/wght.css'
import './styles/tokens.scss'
import './styles/bootstrap.scss'
import './styles/base.scss'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import { router } from './router.ts'

createApp(App).use(createPinia()).use(router).mount('#app')
