import { createApp } from 'vue'
import { createRouter, createWebHistory } from 'vue-router'
import App from './App.vue'

const router = createRouter({
  history: createWebHistory(process.env.BASE_URL),
  routes: [
    { path: '/', component: App },
    { path: '/harbours', component: () => import('./Harbours.vue') },
  ],
})

createApp(App).use(router).mount('#app')
