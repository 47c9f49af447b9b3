import { createRouter, createWebHistory } from 'vue-router'
import ConnectStage from './stages/ConnectStage.vue'
import HomeStage from './stages/HomeStage.vue'
import MapStage from './stages/MapStage.vue'
import ProgramStage from './stages/ProgramStage.vue'
import ProveStage from './stages/ProveStage.vue'
import ScaleStage from './stages/ScaleStage.vue'
import TuneStage from './stages/TuneStage.vue'
import WireStage from './stages/WireStage.vue'

export const stages = [
  { key: 'connect', title: 'Connect', component: ConnectStage },
  { key: 'map', title: 'Map', component: MapStage },
  { key: 'scale', title: 'Scale', component: ScaleStage },
  { key: 'wire', title: 'Wire', component: WireStage },
  { key: 'tune', title: 'Tune', component: TuneStage },
  { key: 'home', title: 'Home', component: HomeStage },
  { key: 'program', title: 'Program', component: ProgramStage },
  { key: 'prove', title: 'Prove', component: ProveStage },
] as const

export type StageKey = (typeof stages)[number]['key']

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    ...stages.map((s) => ({ path: `/${s.key}`, name: s.key, component: s.component })),
    { path: '/:rest(.*)*', redirect: '/scale' },
  ],
})
