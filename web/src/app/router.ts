import { nextTick } from 'vue';
import { createRouter, createWebHistory } from 'vue-router';
import { sentence } from '@kevro/contract';
import { focusHeading } from '../ui/focus';
import { useFitting } from '../stores/fitting';
import { useSaved } from '../stores/saved';
import TodayPage from '../today/TodayPage.vue';

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'today', component: TodayPage, meta: { title: 'Today' } },
    {
      path: '/players',
      name: 'players',
      component: () => import('../players/PlayersPage.vue'),
      meta: { title: 'Players' },
    },
    {
      path: '/players/:id',
      name: 'player',
      component: () => import('../players/PlayerPage.vue'),
      props: true,
      meta: { title: 'Player' },
    },
    {
      path: '/players/:id/season',
      name: 'season',
      component: () => import('../players/SeasonPage.vue'),
      props: true,
      meta: { title: 'Season' },
    },
    {
      path: '/frames',
      name: 'frames',
      component: () => import('../frames/FramesPage.vue'),
      meta: { title: 'Frames' },
    },
    {
      path: '/frames/:id',
      name: 'frame',
      component: () => import('../frames/FramePage.vue'),
      props: true,
      meta: { title: 'Frame' },
    },
    {
      path: '/frames/:id/card',
      name: 'frame-card',
      component: () => import('../frames/FrameCard.vue'),
      props: true,
      meta: { title: 'Card' },
    },
    {
      path: '/frames/:id/measure',
      name: 'frame-measure',
      component: () => import('../frames/FrameMeasurePage.vue'),
      props: true,
      meta: { title: 'Measure' },
    },
    {
      path: '/frames/:id/outline',
      name: 'frame-outline',
      component: () => import('../frames/OutlinePage.vue'),
      props: true,
      meta: { title: 'Outline' },
    },
    {
      path: '/tag/:tag',
      name: 'tag',
      component: () => import('../frames/TagPage.vue'),
      props: true,
      meta: { title: 'Frame' },
    },
    {
      path: '/labels',
      name: 'labels',
      component: () => import('../labels/LabelsPage.vue'),
      meta: { title: 'Labels' },
    },
    {
      path: '/setups',
      name: 'setups',
      component: () => import('../library/SetupsPage.vue'),
      meta: { title: 'Setups' },
    },
    {
      path: '/setups/guides',
      name: 'guides',
      component: () => import('../library/GuidesPage.vue'),
      meta: { title: 'Guides' },
    },
    {
      path: '/setups/:id',
      name: 'setup',
      component: () => import('../library/SetupPage.vue'),
      props: true,
      meta: { title: 'Setup' },
    },
    {
      path: '/stock',
      name: 'stock',
      component: () => import('../stock/StockPage.vue'),
      meta: { title: 'Stock' },
    },
    {
      path: '/stock/match',
      name: 'shelf',
      component: () => import('../stock/ShelfMatch.vue'),
      meta: { title: 'Match from stock' },
    },
    {
      path: '/match',
      name: 'match',
      component: () => import('../match/MatchPage.vue'),
      meta: { title: 'Match frames' },
    },
    {
      path: '/stock/learning',
      name: 'learning',
      component: () => import('../stock/LearningPage.vue'),
      meta: { title: 'What builds taught' },
    },
    {
      path: '/settings',
      name: 'settings',
      component: () => import('../settings/SettingsPage.vue'),
      meta: { title: 'Settings' },
    },
    {
      path: '/settings/safety',
      name: 'safety',
      component: () => import('../settings/SafetyPage.vue'),
      meta: { title: 'Backups and devices' },
    },
    {
      path: '/sign-in',
      name: 'sign-in',
      component: () => import('./SignInPage.vue'),
      meta: { title: 'Sign in' },
    },
    {
      path: '/settings/changes',
      name: 'changes',
      component: () => import('../settings/ChangesPage.vue'),
      meta: { title: 'Change log' },
    },
    {
      path: '/played/:code',
      name: 'played',
      component: () => import('../played/PlayedPage.vue'),
      props: true,
      meta: { title: 'How it played', alone: true },
    },
    {
      path: '/filmed/:code',
      name: 'filmed',
      component: () => import('../played/FilmedPage.vue'),
      props: true,
      meta: { title: 'Film the swing', alone: true },
    },
    {
      path: '/settings/instruments',
      name: 'instruments',
      component: () => import('../instruments/InstrumentsPage.vue'),
      meta: { title: 'Instruments' },
    },
    {
      path: '/settings/instruments/:id',
      name: 'instrument',
      component: () => import('../instruments/InstrumentPage.vue'),
      props: true,
      meta: { title: 'Calibration' },
    },
    {
      path: '/fittings/:id',
      component: () => import('../stations/FittingPage.vue'),
      props: true,
      children: [
        { path: '', redirect: (to) => `/fittings/${String(to.params.id)}/measure` },
        {
          path: 'measure',
          name: 'measure',
          component: () => import('../stations/measure/MeasureStation.vue'),
          meta: { title: 'Measure' },
        },
        {
          path: 'match',
          name: 'match-set',
          component: () => import('../match/MatchStation.vue'),
          meta: { title: 'Match frames' },
        },
        {
          path: 'compare',
          name: 'compare',
          component: () => import('../stations/compare/CompareStation.vue'),
          meta: { title: 'Compare' },
        },
        {
          path: 'aim',
          name: 'aim',
          component: () => import('../stations/aim/AimStation.vue'),
          meta: { title: 'Aim' },
        },
        {
          path: 'plan',
          name: 'plan',
          component: () => import('../stations/plan/PlanStation.vue'),
          meta: { title: 'Plan' },
        },
        {
          path: 'build',
          name: 'build',
          component: () => import('../stations/build/BuildStation.vue'),
          meta: { title: 'Build' },
        },
        {
          path: 'check',
          name: 'check',
          component: () => import('../stations/check/CheckStation.vue'),
          meta: { title: 'Check' },
        },
        {
          path: 'play',
          name: 'play',
          component: () => import('../stations/play/PlayStation.vue'),
          meta: { title: 'Play' },
        },
      ],
    },
    {
      path: '/guide',
      name: 'guide',
      component: () => import('./GuidePage.vue'),
      meta: { title: 'Your first fitting' },
    },
    {
      path: '/:rest(.*)*',
      name: 'nowhere',
      component: () => import('./NowherePage.vue'),
      meta: { title: 'Not here' },
    },
  ],
});

// A fitting is asked for while the code of its page comes. Within a fitting of a set the frame that is worked on stays, whichever way leads on.
router.beforeEach((to, from) => {
  const { frame } = from.query;
  const ofFitting = to.matched[0]?.path === '/fittings/:id';
  const within = ofFitting && to.params.id === from.params.id;
  if (ofFitting && !within) useFitting().askEarly(String(to.params.id));
  if (!within || !frame || to.query.frame || from.matched[0] !== to.matched[0]) return true;
  return { path: to.path, query: { ...to.query, frame }, hash: to.hash, replace: true };
});

// A page that cannot be loaded is said in the foot line, and the page before stays. The browser keeps a file that failed as failed:
// where the server answers again the whole application is loaded anew; what was typed is kept as drafts.
router.onError(async (_error, to, from) => {
  const answers = await fetch('/api/v1/health').then(
    ({ ok }) => ok,
    () => false,
  );
  if (answers && from.matched.length > 0) location.assign(to.fullPath);
  else useSaved().failed(new Error(sentence('cannot-reach-server')));
});

router.afterEach((to, from) => {
  // Who goes on by keys or hears the page goes on at its heading, not at the top of the window.
  if (from.matched.length > 0 && to.path !== from.path) void nextTick(focusHeading);
  useSaved().failure = '';
});
