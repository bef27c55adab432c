import { createRouter, createWebHistory } from 'vue-router'
import TodayPage from './pages/TodayPage.vue'

/** One address, one question; see docs/guide/screens.md. */
export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'today', component: TodayPage },
    { path: '/garage', name: 'garage', component: () => import('./pages/GaragePage.vue') },
    {
      path: '/bench/:bikeId',
      name: 'bench',
      component: () => import('./pages/BenchPage.vue'),
      props: true,
    },
    { path: '/days/:id', name: 'day', component: () => import('./pages/DayPage.vue'), props: true },
    {
      path: '/days/:id/logger',
      name: 'logger',
      component: () => import('./pages/LoggerPage.vue'),
      props: true,
    },
    {
      path: '/days/:id/trace/:runId',
      name: 'trace',
      component: () => import('./pages/TracePage.vue'),
      props: true,
    },
    {
      path: '/days/:id/compare',
      name: 'compare',
      component: () => import('./pages/ComparePage.vue'),
      props: true,
    },
    { path: '/handbook', name: 'handbook', component: () => import('./pages/HandbookPage.vue') },
    { path: '/:rest(.*)*', name: 'lost', component: () => import('./pages/LostPage.vue') },
  ],
  scrollBehavior: (to, _from, saved) => saved ?? (to.hash ? { el: to.hash, top: 70 } : { top: 0 }),
})
