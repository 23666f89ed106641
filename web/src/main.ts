import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import { inside } from './features/shell/inside'
import { router } from './router'
import './style.css'

createApp(App).use(createPinia()).use(router).directive('inside', inside).mount('#app')
