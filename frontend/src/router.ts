import { createRouter, createWebHistory } from 'vue-router'

import BenchView from './components/bench/BenchView.vue'
import SheetView from './components/sheet/SheetView.vue'
import ShelfView from './components/shelf/ShelfView.vue'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'shelf', component: ShelfView },
    { path: '/finish/:id', name: 'bench', component: BenchView, props: true },
    { path: '/sheet', name: 'sheet', component: SheetView },
    { path: '/:rest(.*)', redirect: '/' },
  ],
})
