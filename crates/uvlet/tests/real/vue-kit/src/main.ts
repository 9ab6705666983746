import { createApp } from 'vue'
import { createPinia } from 'pinia'
import { createRouter, createWebHistory } from 'vue-router'
import { createI18n } from 'vue-i18n'
import { VueQueryPlugin } from '@tanstack/vue-query'
import ElementPlus from 'element-plus'
import 'element-plus/dist/index.css'
import './style.css'
import App from './App.vue'
import Home from './pages/Home.vue'

const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', component: Home },
    { path: '/charts', component: () => import('./pages/Charts.vue') },
    { path: '/notes', component: () => import('./pages/Notes.vue') },
    { path: '/list', component: () => import('./pages/List.vue') },
  ],
})
const i18n = createI18n({ legacy: false, locale: 'en', messages: { en: { home: 'Home' } } })
createApp(App).use(createPinia()).use(router).use(i18n).use(ElementPlus).use(VueQueryPlugin).mount('#app')
