/** The application, begun when the language is there. */
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import { arrows } from '@/shared/arrows'
import { saying } from '@/shared/words'
import App from './App.vue'
import { router } from './router'

export function start() {
  createApp(App).directive('arrows', arrows).use(saying).use(createPinia()).use(router).mount('#app')
}
