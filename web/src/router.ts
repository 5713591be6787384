import { createRouter, createWebHistory } from 'vue-router'
import BenchView from './bench/BenchView.vue'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'bench', component: BenchView, meta: { title: 'Bench' } },
    { path: '/v/:id', name: 'variation', component: BenchView, meta: { title: 'Bench' } },
    { path: '/sheet/:id', name: 'sheet', component: () => import('./sheet/SheetView.vue'), meta: { title: 'Sheet' } },
    { path: '/griddle', name: 'griddle', component: () => import('./griddle/GriddleView.vue'), meta: { title: 'Griddle' } },
    { path: '/freezer', name: 'freezer', component: () => import('./freezer/FreezerView.vue'), meta: { title: 'Freezer' } },
    { path: '/bases', name: 'bases', component: () => import('./bases/BasesView.vue'), meta: { title: 'Bases' } },
    { path: '/sauces', name: 'sauces', component: () => import('./sauces/SaucesView.vue'), meta: { title: 'Sauces' } },
    { path: '/pantry', name: 'pantry', component: () => import('./pantry/PantryView.vue'), meta: { title: 'Pantry' } },
    { path: '/prep', name: 'prep', component: () => import('./prep/PrepView.vue'), meta: { title: 'Prep' } },
    { path: '/kitchen', name: 'kitchen', component: () => import('./kitchen/KitchenView.vue'), meta: { title: 'Kitchen' } },
    { path: '/guest/:token', name: 'guest', component: () => import('./house/GuestView.vue'), meta: { title: 'Card', guest: true } },
    { path: '/:rest(.*)', redirect: '/' },
  ],
})
