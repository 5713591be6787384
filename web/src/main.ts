import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import { router } from './router'
import 'element-plus/theme-chalk/base.css'
import 'element-plus/theme-chalk/el-message.css'
import './styles/tokens.css'
import './styles/base.css'
import './styles/element.css'

createApp(App).use(createPinia()).use(router).mount('#app')
