import { createRouter, createWebHistory, type RouteLocationNormalized, type RouteLocationRaw } from 'vue-router'
import MachinesPage from './machines/MachinesPage.vue'

/** The stages in the order of the work. A stage of an axis says what to do first while the machine has none. */
export const stages = [
  { key: 'connect', title: 'Connect', ofAxis: true, component: () => import('./stages/ConnectStage.vue') },
  { key: 'map', title: 'Map', ofAxis: true, component: () => import('./stages/MapStage.vue') },
  { key: 'scale', title: 'Scale', ofAxis: true, component: () => import('./stages/ScaleStage.vue') },
  { key: 'wire', title: 'Wire', ofAxis: true, component: () => import('./stages/WireStage.vue') },
  { key: 'tune', title: 'Tune', ofAxis: true, component: () => import('./stages/TuneStage.vue') },
  { key: 'home', title: 'Home', ofAxis: true, component: () => import('./stages/HomeStage.vue') },
  { key: 'move', title: 'Move', ofAxis: true, component: () => import('./stages/MoveStage.vue') },
  { key: 'follow', title: 'Follow', ofAxis: true, component: () => import('./stages/FollowStage.vue') },
  { key: 'guard', title: 'Guard', ofAxis: true, component: () => import('./stages/GuardStage.vue') },
  { key: 'program', title: 'Program', ofAxis: false, component: () => import('./stages/ProgramStage.vue') },
  { key: 'prove', title: 'Prove', ofAxis: false, component: () => import('./stages/ProveStage.vue') },
] as const

export type StageKey = (typeof stages)[number]['key']

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'machines', component: MachinesPage },
    { path: '/machines/:machine(\\d+)', redirect: (to) => ({ name: 'overview', params: to.params }) },
    { path: '/machines/:machine(\\d+)/overview/:axis?', name: 'overview', component: () => import('./stages/OverviewStage.vue') },
    ...stages.map((s) => ({ path: `/machines/:machine(\\d+)/${s.key}/:axis?`, name: s.key, component: s.component })),
    { path: '/machines/:machine(\\d+)/traces/:axis?', name: 'traces', component: () => import('./stages/TracesPage.vue') },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
})

/** Where the page is going while a stage is still being loaded; null once it is there. */
let heading: RouteLocationNormalized | null = null
router.beforeEach((to) => { heading = to })
router.afterEach((to) => { if (heading?.fullPath === to.fullPath) heading = null })

/** The address names the axis from now on. A stage that was chosen meanwhile stays chosen. */
export function nameAxis(axis: string) {
  const at = heading ?? router.currentRoute.value
  return router.replace({ name: at.name ?? 'overview', params: { machine: at.params.machine, axis } })
}

/** Where a stage of the machine that is open is; the axis stays the chosen one unless another is named. */
export function placeOf(stage: StageKey | 'overview' | 'traces', axis?: string): RouteLocationRaw {
  const { params } = router.currentRoute.value
  return { name: stage, params: { machine: params.machine, axis: axis ?? params.axis } }
}
