import { stations } from '@torvek/core/document';
import { createRouter, createWebHistory } from 'vue-router';
import JobsPage from './jobs/JobsPage.vue';
import SignInPage from './people/SignInPage.vue';
import { stationList } from './stations/stations';
import { useSession } from './stores/session';

/** Jobs, and the stations of a job; each station's code is loaded when it is opened. */
export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'jobs', component: JobsPage },
    { path: '/sign-in', name: 'sign-in', component: SignInPage },
    { path: '/shop', name: 'shop', component: () => import('./people/ShopPage.vue') },
    { path: '/notices', name: 'notices', component: () => import('./shell/NoticesPage.vue') },
    { path: '/library', name: 'library', component: () => import('./library/LibraryPage.vue') },
    {
      path: '/jobs/:job',
      component: () => import('./shell/JobFrame.vue'),
      props: true,
      children: [
        { path: '', redirect: (to) => `${to.path.replace(/\/$/, '')}/brief` },
        ...stations.map((name) => ({ path: name, name, component: stationList[name].load })),
        { path: 'figures', name: 'figures', component: () => import('./rules/FiguresPage.vue') },
        { path: 'rules', name: 'rules', component: () => import('./rules/RulesPage.vue') },
      ],
    },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
});

/** Nobody sees a page without a session; where they wanted to go is kept. */
router.beforeEach(async (to) => {
  const session = useSession();
  if (!session.known) await session.load().catch(() => undefined);
  if (session.person === null && to.name !== 'sign-in')
    return { name: 'sign-in', query: to.fullPath === '/' ? {} : { to: to.fullPath } };
  if (session.person !== null && to.name === 'sign-in') return { name: 'jobs' };
  return true;
});
