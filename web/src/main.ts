import { createPinia } from 'pinia'
import { createApp } from 'vue'
import { say } from '@/parts/say'
import { Refusal, said } from './api/client'
import App from './App.vue'
import { keepShell } from './away/shell'
import { router } from './router'
import './styles/kit'
import 'element-plus/theme-chalk/base.css'
import 'element-plus/theme-chalk/el-message.css'
import './styles/tokens.css'
import './styles/base.css'
import './styles/element.css'

const app = createApp(App)
/** Nothing that a cook does fails without a word: what no screen caught is told here. */
function tell(e: unknown) {
  if (!(e instanceof Refusal)) reportError(e)
  say({ type: 'error', message: said(e), duration: 8000, showClose: true, grouping: true })
}
app.config.errorHandler = tell
window.addEventListener('unhandledrejection', (e) => {
  e.preventDefault()
  tell(e.reason)
})
app.use(createPinia()).use(router).mount('#app')
if (import.meta.env.PROD) window.addEventListener('load', () => void keepShell())
