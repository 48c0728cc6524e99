/**
 * Addresses of places, slips and stages. Each page fills up to three parts of the frame: the sheet,
 * the spine, the margin. Nobody signed in goes to the sign-in page and comes back.
 */
import { STAGES } from '@plain-slate/core'
import type { RouteRecordRaw } from 'vue-router'
import { createRouter, createWebHistory } from 'vue-router'
import { useSessionStore } from './people/session.ts'

declare module 'vue-router' {
  interface RouteMeta {
    /** The place whose tab is marked; none on pages outside the frame. */
    readonly place?: string
    /** Open to nobody in particular. */
    readonly open?: boolean
  }
}

const stagePattern = STAGES.join('|')

const slipParts = {
  spine: () => import('./slip/spine/SlipSpine.vue'),
  margin: () => import('./slip/margins/SlipMargin.vue'),
}

const benchParts = {
  spine: () => import('./bench/BenchSpine.vue'),
  margin: () => import('./bench/HandsPanel.vue'),
}

const pages: RouteRecordRaw[] = [
  { path: '/', redirect: '/counter' },
  { path: '/sign-in', component: () => import('./people/SignIn.vue'), meta: { open: true } },
  {
    path: '/counter',
    components: {
      default: () => import('./places/Counter.vue'),
      spine: () => import('./places/CounterSpine.vue'),
    },
    meta: { place: 'counter' },
  },
  {
    path: '/slips',
    components: {
      default: () => import('./slip/list/SlipList.vue'),
      spine: () => import('./slip/list/SlipListSpine.vue'),
    },
    meta: { place: 'slips' },
  },
  {
    path: '/slips/new',
    component: () => import('./slip/head/NewSlip.vue'),
    meta: { place: 'slips' },
  },
  {
    path: '/slips/:number(\\d+)',
    components: { default: () => import('./slip/head/SlipHead.vue'), ...slipParts },
    meta: { place: 'slips' },
  },
  {
    path: `/slips/:number(\\d+)/:stage(${stagePattern})`,
    components: {
      default: () => import('./slip/spine/SlipStage.vue'),
      spine: slipParts.spine,
      margin: () => import('./slip/margins/StageMargin.vue'),
    },
    meta: { place: 'slips' },
  },
  { path: '/shelf', component: () => import('./shelf/Shelf.vue'), meta: { place: 'shelf' } },
  {
    path: '/shelf/:package',
    component: () => import('./shelf/PackageSheet.vue'),
    meta: { place: 'shelf' },
  },
  {
    path: '/bench',
    components: { default: () => import('./bench/Bench.vue'), ...benchParts },
    meta: { place: 'bench' },
  },
  {
    path: '/bench/:port',
    components: { default: () => import('./bench/PortSheet.vue'), ...benchParts },
    meta: { place: 'bench' },
  },
  {
    path: '/book',
    components: {
      default: () => import('./book/Book.vue'),
      margin: () => import('./book/BookMargin.vue'),
    },
    meta: { place: 'book' },
  },
  {
    path: '/house',
    components: {
      default: () => import('./house/House.vue'),
      margin: () => import('./house/HouseMargin.vue'),
    },
    meta: { place: 'house' },
  },
  {
    path: '/house/families',
    components: {
      default: () => import('./house/Families.vue'),
    },
    meta: { place: 'house' },
  },
  {
    path: '/house/families/:id',
    components: {
      default: () => import('./house/FamilyPage.vue'),
      spine: () => import('./house/FamiliesSpine.vue'),
    },
    meta: { place: 'house' },
  },
  { path: '/:rest(.*)*', component: () => import('./places/Unknown.vue'), meta: { place: 'none' } },
]

export function makeRouter() {
  const router = createRouter({ history: createWebHistory(), routes: pages })
  router.beforeEach(async (to) => {
    const session = useSessionStore()
    /* The server may be away: the page then shows that, and asks again. */
    if (!session.known) await session.ask().catch(() => undefined)
    if (to.meta.open === true || session.person !== null) return true
    return { path: '/sign-in', query: to.path === '/counter' ? {} : { to: to.fullPath } }
  })
  return router
}
