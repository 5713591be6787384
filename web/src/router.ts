import { createRouter, createWebHistory } from 'vue-router'
import BenchView from './bench/BenchView.vue'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'bench', component: BenchView },
    { path: '/bases', name: 'bases', component: () => import('./bases/BasesView.vue') },
    { path: '/pantry', name: 'pantry', component: () => import('./pantry/PantryView.vue') },
    { path: '/prep', name: 'prep', component: () => import('./prep/PrepView.vue') },
    { path: '/kitchen', name: 'kitchen', component: () => import('./kitchen/KitchenView.vue') },
    { path: '/:rest(.*)', redirect: '/' },
  ],
})
