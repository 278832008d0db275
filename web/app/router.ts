import { say } from '@core/base/words/say.js';
import { createRouter, createWebHistory, type RouteLocationNormalized, type RouteRecordRaw } from 'vue-router';
import { useSession } from '../workshop/people/sessionStore.js';

const ROUTES: RouteRecordRaw[] = [
  { path: '/', redirect: '/today' },
  { path: '/sign-in', component: () => import('../pages/SignInView.vue'), meta: { open: true, title: 'Sign in' } },
  { path: '/new-password', component: () => import('../pages/NewPasswordView.vue'), meta: { anybody: true, title: 'A new password' } },
  { path: '/first-visit', component: () => import('../pages/SetupView.vue'), meta: { open: true, title: 'First visit' } },
  { path: '/today', component: () => import('../pages/TodayView.vue'), meta: { title: 'Today' } },
  { path: '/systems', component: () => import('../pages/SystemsView.vue'), meta: { title: 'Machines' } },
  { path: '/systems/new', component: () => import('../pages/NewSystemView.vue'), meta: { title: 'New machine' } },
  { path: '/systems/import', component: () => import('../pages/ImportView.vue'), meta: { title: 'Bring machines in' } },
  { path: '/systems/:id', component: () => import('../pages/SystemView.vue'), props: true, meta: { title: 'Machine' } },
  { path: '/systems/:systemId/loops/new', component: () => import('../pages/LoopView.vue'), props: true, meta: { title: 'New loop' } },
  { path: '/systems/:id/jobs/new', component: () => import('../pages/NewJobView.vue'), props: true, meta: { title: 'Take in' } },
  { path: '/jobs/:id', component: () => import('../pages/JobView.vue'), props: true, meta: { title: 'Job' } },
  { path: '/systems/:id/condition', component: () => import('../pages/ConditionView.vue'), props: true, meta: { title: 'Condition' } },
  { path: '/systems/:id/connectors', component: () => import('../pages/ConnectorsView.vue'), props: true, meta: { title: 'Connectors' } },
  { path: '/systems/:id/papers', component: () => import('../pages/SlipView.vue'), props: true, meta: { title: 'Papers' } },
  { path: '/search', component: () => import('../pages/SearchView.vue'), meta: { title: 'Search' } },
  { path: '/messages', component: () => import('../pages/MessagesView.vue'), meta: { title: 'Messages' } },
  { path: '/plan', component: () => import('../pages/PlanView.vue'), meta: { title: 'Plan' } },
  { path: '/store', component: () => import('../pages/StoreView.vue'), meta: { title: 'Store' } },
  { path: '/labels', component: () => import('../pages/LabelsView.vue'), meta: { title: 'Labels' } },
  { path: '/limit-changes/:id', component: () => import('../pages/LimitChangeView.vue'), props: true, meta: { title: 'Whom to tell' } },
  { path: '/waste/:id/paper', component: () => import('../pages/HandOverView.vue'), props: true, meta: { title: 'Hand-over' } },
  { path: '/loops/:id', component: () => import('../pages/LoopView.vue'), props: true, meta: { title: 'Loop' } },
  // the address of what is computed, as it was kept in bookmarks and letters before the loop was one page
  {
    path: '/loops/:id/profile',
    redirect: ({ params, query }) => ({ path: `/loops/${String(params.id)}`, query: { show: 'drain', ...query } }),
  },
  { path: '/loops/:id/parts', component: () => import('../pages/PartsSheet.vue'), props: true, meta: { title: 'Parts and cuts' } },
  { path: '/runs/:id', component: () => import('../pages/RunView.vue'), props: true, meta: { title: 'Bench', bench: true } },
  { path: '/runs/:id/report', component: () => import('../pages/ReportView.vue'), props: true, meta: { title: 'Report' } },
  { path: '/runs/:id/record', component: () => import('../pages/RecordView.vue'), props: true, meta: { title: 'Record' } },
  { path: '/course', component: () => import('../pages/CourseView.vue'), meta: { title: 'The course' } },
  { path: '/own-password', component: () => import('../pages/OwnPasswordView.vue'), meta: { title: 'Your account' } },
  {
    path: '/workshop/procedure/:kind?',
    props: true,
    component: () => import('../pages/ProcedureView.vue'),
    meta: { title: 'Procedure' },
  },
  { path: '/workshop/:part?', props: true, component: () => import('../pages/WorkshopView.vue'), meta: { title: 'Workshop' } },
  { path: '/:path(.*)*', component: () => import('../pages/NowhereView.vue'), meta: { title: 'Not found' } },
];

export const router = createRouter({
  history: createWebHistory(),
  routes: ROUTES,
  scrollBehavior: (_to, _from, saved) => saved ?? { top: 0 },
});

/** The page's own code comes while it is asked who is signed in: one wait instead of two, at the first page of a visit. */
function fetchAhead({ matched }: RouteLocationNormalized): void {
  for (const { components } of matched)
    for (const component of Object.values(components ?? {}))
      if (typeof component === 'function') void (component as () => Promise<unknown>)().catch(() => undefined);
}

/** pages that are opened next, most days */
const USUALLY_NEXT = ['/systems', '/systems/:id', '/today', '/jobs/:id', '/runs/:id'];

/** after which a first page has asked what it asks, in ms */
const QUIET_MS = 1500;

const whenIdle = (then: () => void): unknown =>
  typeof requestIdleCallback === 'function' ? requestIdleCallback(then) : setTimeout(then, QUIET_MS);

/**
 * Once a first page stands and nothing else is done, the code of the usual next pages comes, one after the other.
 * An installed app has it on the device already; a browser that may not install, or has not yet, then opens them as fast.
 */
async function fetchUsual(): Promise<void> {
  for (const path of USUALLY_NEXT) {
    const page: unknown = ROUTES.find((route) => route.path === path)?.component;
    await new Promise<void>((done) => whenIdle(done));
    if (typeof page === 'function') await (page as () => Promise<unknown>)().catch(() => undefined);
  }
}

/** once for each tab: afterwards the browser has them */
const USUAL_ASKED = 'lavacrum-usual-pages';
function askUsualOnce(): void {
  if (!useSession().account || navigator.serviceWorker?.controller || sessionStorage.getItem(USUAL_ASKED)) return;
  sessionStorage.setItem(USUAL_ASKED, 'yes');
  window.setTimeout(() => void fetchUsual(), QUIET_MS);
}

router.beforeEach(async (to) => {
  const session = useSession();
  if (!session.loaded) {
    fetchAhead(to);
    await session.load().catch(() => undefined);
  }
  if (to.meta.anybody) return true;
  if (session.account) return to.meta.open ? '/today' : true;
  if (session.setupNeeded) return to.path === '/first-visit' ? true : '/first-visit';
  if (to.path === '/sign-in') return true;
  return { path: '/sign-in', query: to.fullPath === '/today' || to.path === '/first-visit' ? {} : { next: to.fullPath } };
});

router.afterEach((to) => {
  askUsualOnce();
  document.title = `${say(String(to.meta.title))} · Lavacrum`;
});
