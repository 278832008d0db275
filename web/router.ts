import { createRouter, createWebHistory } from 'vue-router';
import { useSession } from './accounts/sessionStore.js';

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', redirect: '/today' },
    { path: '/sign-in', component: () => import('./accounts/SignInView.vue'), meta: { open: true, title: 'Sign in' } },
    { path: '/first-visit', component: () => import('./accounts/SetupView.vue'), meta: { open: true, title: 'First visit' } },
    { path: '/today', component: () => import('./today/TodayView.vue'), meta: { title: 'Today' } },
    { path: '/systems', component: () => import('./systems/SystemsView.vue'), meta: { title: 'Systems' } },
    { path: '/systems/new', component: () => import('./systems/NewSystemView.vue'), meta: { title: 'New system' } },
    { path: '/systems/import', component: () => import('./importing/ImportView.vue'), meta: { title: 'Bring systems in' } },
    { path: '/systems/:id', component: () => import('./systems/SystemView.vue'), props: true, meta: { title: 'System' } },
    { path: '/systems/:systemId/loops/new', component: () => import('./loops/LoopView.vue'), props: true, meta: { title: 'New loop' } },
    { path: '/systems/:id/jobs/new', component: () => import('./jobs/NewJobView.vue'), props: true, meta: { title: 'Take in' } },
    { path: '/jobs/:id', component: () => import('./jobs/JobView.vue'), props: true, meta: { title: 'Job' } },
    { path: '/systems/:id/papers', component: () => import('./slips/SlipView.vue'), props: true, meta: { title: 'Papers' } },
    { path: '/search', component: () => import('./search/SearchView.vue'), meta: { title: 'Search' } },
    { path: '/messages', component: () => import('./messages/MessagesView.vue'), meta: { title: 'Messages' } },
    { path: '/plan', component: () => import('./planning/PlanView.vue'), meta: { title: 'Plan' } },
    { path: '/store', component: () => import('./store/StoreView.vue'), meta: { title: 'Store' } },
    { path: '/loops/:id', component: () => import('./loops/LoopView.vue'), props: true, meta: { title: 'Loop' } },
    { path: '/loops/:id/profile', component: () => import('./profile/ProfileView.vue'), props: true, meta: { title: 'Loop profile' } },
    { path: '/loops/:id/parts', component: () => import('./loops/PartsSheet.vue'), props: true, meta: { title: 'Parts and cuts' } },
    { path: '/runs/:id', component: () => import('./commissioning/RunView.vue'), props: true, meta: { title: 'Bench', bench: true } },
    { path: '/runs/:id/record', component: () => import('./commissioning/RecordView.vue'), props: true, meta: { title: 'Record' } },
    { path: '/workshop', component: () => import('./accounts/WorkshopView.vue'), meta: { title: 'Workshop' } },
    {
      path: '/workshop/procedure/:kind?',
      props: true,
      component: () => import('./commissioning/ProcedureView.vue'),
      meta: { title: 'Procedure' },
    },
    { path: '/:path(.*)*', component: () => import('./shell/NowhereView.vue'), meta: { title: 'Not found' } },
  ],
  scrollBehavior: (_to, _from, saved) => saved ?? { top: 0 },
});

router.beforeEach(async (to) => {
  const session = useSession();
  if (!session.loaded) await session.load().catch(() => undefined);
  if (session.account) return to.meta.open ? '/today' : true;
  if (session.setupNeeded) return to.path === '/first-visit' ? true : '/first-visit';
  if (to.path === '/sign-in') return true;
  return { path: '/sign-in', query: to.fullPath === '/today' || to.path === '/first-visit' ? {} : { next: to.fullPath } };
});

router.afterEach((to) => {
  document.title = `${String(to.meta.title)} · Lavacrum`;
});
