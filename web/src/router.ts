import { createRouter, createWebHistory } from 'vue-router';
import JobsPage from './jobs/JobsPage.vue';

/** Jobs, and the stations of a job; each station's code is loaded when it is opened. */
export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'jobs', component: JobsPage },
    {
      path: '/jobs/:job',
      component: () => import('./shell/JobFrame.vue'),
      props: true,
      children: [
        { path: '', redirect: (to) => `${to.path.replace(/\/$/, '')}/brief` },
        { path: 'brief', name: 'brief', component: () => import('./stations/brief/BriefStation.vue') },
        { path: 'pack', name: 'pack', component: () => import('./stations/pack/PackStation.vue') },
        {
          path: 'protect',
          name: 'protect',
          component: () => import('./stations/protect/ProtectStation.vue'),
        },
        { path: 'prove', name: 'prove', component: () => import('./stations/prove/ProveStation.vue') },
        { path: 'book', name: 'book', component: () => import('./stations/book/BookStation.vue') },
      ],
    },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
});
