import { defineRouter } from '#q-app/wrappers'
import { createRouter, createWebHistory } from 'vue-router'

const routes = [
  { path: '/', component: () => import('pages/IndexPage.vue') },
  { path: '/sailings/:id', component: () => import('pages/IndexPage.vue') },
]
export default defineRouter(() => createRouter({ routes, history: createWebHistory(process.env.VUE_ROUTER_BASE) }))
