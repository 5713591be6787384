import { createRouter, createWebHistory } from 'vue-router'
import BenchView from './bench/BenchView.vue'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'bench', component: BenchView },
    { path: '/kitchen', name: 'kitchen', component: () => import('./kitchen/KitchenView.vue') },
    { path: '/:rest(.*)', redirect: '/' },
  ],
})
