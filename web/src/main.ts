import '@fontsource-variable/commissioner/index.css'
import '@fontsource-variable/spline-sans-mono/index.css'
import 'element-plus/theme-chalk/base.css'
import 'element-plus/theme-chalk/el-message.css'
import 'element-plus/theme-chalk/el-message-box.css'
import './styles/tokens.css'
import './styles/base.css'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './app/App.vue'
import { router } from './app/router'
import { arrows } from './shared/arrows'

createApp(App).directive('arrows', arrows).use(createPinia()).use(router).mount('#app')
