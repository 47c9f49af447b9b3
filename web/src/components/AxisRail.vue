<script setup lang="ts">
import { mdiArrowDown, mdiArrowUp, mdiChevronLeft, mdiChevronRight, mdiContentCopy, mdiDelete, mdiDotsVertical, mdiPencil, mdiPlus } from '@mdi/js'
import { computed, nextTick, ref, watch } from 'vue'
import { api } from '../api/client'
import { fixed } from '../lib/numbers'
import { useBench } from '../stores/bench'
import { useLayout } from '../stores/layout'
import { useMachine } from '../stores/machine'
import NewAxis from './NewAxis.vue'

const machine = useMachine()
const bench = useBench()
const layout = useLayout()
/** What is being done with the chosen axis: a form under its strip, or the question before it is removed. */
const doing = ref<'ADD' | 'COPY' | 'RENAME' | 'REMOVE' | null>(null)
const dependents = ref<string[]>([])
/** Above this many axes a strip is one line. */
const MANY = 8
const rail = ref<HTMLElement | null>(null)
const many = computed(() => (machine.draft?.axes.length ?? 0) > MANY)

async function act(what: 'COPY' | 'RENAME' | 'REMOVE', index: number) {
  machine.axisIndex = index
  doing.value = what
  if (what === 'REMOVE') dependents.value = (await machine.guarded(() => api.dependents(machine.draft!, machine.axis!.name))) ?? []
}

async function edit(question: { edit: 'MOVE' | 'REMOVE'; to?: number }, index: number) {
  doing.value = null
  await machine.guarded(() => machine.editAxes({ ...question, axis: machine.draft!.axes[index].name }))
}

/* the chosen axis stays in sight, wherever it was chosen */
watch(() => [machine.axisIndex, layout.railFolded], async () => {
  await nextTick()
  rail.value?.querySelector('[aria-pressed=true]')?.scrollIntoView({ block: 'nearest' })
})

const WIDTH = 188
const EDGE = 6

/** Arc of the reference cam on the dial, clockwise from the top. */
function arc(from: number, to: number) {
  const point = (angle: number) => `${28 + 21 * Math.sin(angle)} ${26 - 21 * Math.cos(angle)}`
  return `M${point(from)}A21 21 0 ${to - from > Math.PI ? 1 : 0} 1 ${point(to)}`
}

const strips = computed(() =>
  (machine.draft?.axes ?? []).map((axis, index) => {
    const live = bench.state?.axes.find((a) => a.name === axis.name)
    const travel = axis.travel
    const x = (place: number) => EDGE + ((WIDTH - 2 * EDGE) * place) / travel.length
    const search = machine.homings[index]
    const zero = search?.here.found && axis.kind !== 'ENDLESS' ? search.here.zero - axis.homing.zeroOffset : null
    const endless = axis.kind === 'ENDLESS'
    const turn = endless ? 1 : 0
    return {
      index, axis, live, x, endless,
      /* the dial shows the position when the axis has one, else where the bench has put it */
      angle: turn * ((((live?.place ?? travel.parkedAt) / travel.length) % 1) + 1) * 360,
      camAngles: [travel.camFrom, travel.camTo].map((place) => (place / travel.length) * 2 * Math.PI),
      state: !live ? 'bench off' : bench.state?.stopped ? 'all axes stopped' : live.errorCode ? `fault ${live.errorCode}` : live.state,
      fault: Boolean(live?.errorCode),
      place: live?.place ?? travel.parkedAt,
      soft: zero === null ? null : { from: x(zero + axis.limits.softMin), to: x(zero + axis.limits.softMax) },
    }
  }),
)
</script>

<template>
  <aside v-if="layout.railFolded" ref="rail" class="rail pane folded" aria-label="Axes">
    <v-btn :icon="mdiChevronRight" size="x-small" variant="text" aria-label="Show the axis rail" aria-expanded="false" title="Show the axes" @click="layout.railFolded = false" />
    <button v-for="s in strips" :key="s.axis.name" type="button" class="narrow" :class="{ selected: s.index === machine.axisIndex, wrong: s.fault }" :aria-pressed="s.index === machine.axisIndex"
      :title="`${s.axis.name}: ${s.state}`" @click="machine.axisIndex = s.index"><span aria-hidden="true">{{ s.axis.name.slice(0, 3) }}</span><span class="visually-hidden">{{ s.axis.name }}, {{ s.state }}</span></button>
  </aside>
  <aside v-else ref="rail" class="rail pane" aria-label="Axes">
    <div class="title"><h2>{{ strips.length === 1 ? '1 axis' : `${strips.length} axes` }}</h2>
      <span><v-btn :icon="mdiPlus" size="x-small" variant="text" aria-label="Add an axis" title="Add an axis" @click="doing = doing === 'ADD' ? null : 'ADD'" />
        <v-btn :icon="mdiChevronLeft" size="x-small" variant="text" aria-label="Fold the axis rail" aria-expanded="true" title="Fold" @click="layout.railFolded = true" /></span></div>
    <NewAxis v-if="doing === 'ADD'" class="form" @done="doing = null" />
    <div v-for="s in strips" :key="s.axis.name" class="one">
    <button type="button" class="strip sheet" :class="{ selected: s.index === machine.axisIndex }"
      :aria-pressed="s.index === machine.axisIndex" @click="machine.axisIndex = s.index">
      <span class="row"><b>{{ s.axis.name }}</b><span class="state" :class="{ fault: s.fault }" data-testid="axis-state">{{ s.state }}</span></span>
      <span class="value mono" :class="{ compact: many }" data-testid="axis-position">{{ s.live ? fixed(s.live.position, 3) : '–' }} <span class="unit">{{ s.axis.unit.symbol }}</span></span>
      <svg v-if="s.endless && !many" :width="WIDTH" height="52" :viewBox="`0 0 ${WIDTH} 52`" class="drawing" role="img"
        :aria-label="`Dial of ${s.axis.name}: standing ${fixed(((s.place % s.axis.travel.length) + s.axis.travel.length) % s.axis.travel.length, 2)} ${s.axis.unit.symbol} into its turn`">
        <circle cx="28" cy="26" r="21" fill="none" stroke="var(--pencil)" />
        <path d="M28 2v6M52 26h-6M28 50v-6M4 26h6" stroke="var(--pencil)" />
        <path v-if="s.axis.travel.camTo > s.axis.travel.camFrom" :d="arc(s.camAngles[0], s.camAngles[1])" fill="none" stroke="var(--ref)" :stroke-width="s.live?.referenceCam ? 6 : 3" />
        <path :transform="`rotate(${s.angle} 28 26)`" d="M28 26V9" stroke="var(--act)" stroke-width="3" />
        <text x="60" y="24">{{ s.axis.modulo > 0 ? `0 … ${s.axis.modulo}, endless` : 'endless, counts on' }}</text>
        <text x="60" y="40">{{ s.live ? `${fixed(s.live.speed, 1)} ${s.axis.unit.symbol}/s` : '' }}</text>
      </svg>
      <svg v-else-if="!many" :width="WIDTH" height="40" :viewBox="`0 0 ${WIDTH} 40`" class="drawing" role="img"
        :aria-label="`Ruler of ${s.axis.name}: standing ${fixed(s.place, 0)} ${s.axis.unit.symbol} from the negative stop`">
        <path :d="`M${s.x(0)} 20H${s.x(s.axis.travel.length)}`" stroke="var(--pencil)" />
        <path :d="`M${s.x(0)} 12V28M${s.x(s.axis.travel.length)} 12V28`" stroke="var(--pencil)" stroke-width="2" />
        <rect v-if="s.soft" :x="s.soft.from" y="18" :width="Math.max(1, s.soft.to - s.soft.from)" height="4" fill="var(--hair)" stroke="var(--pencil)" stroke-width="0.5" />
        <rect :x="s.x(0)" y="23" :width="s.x(s.axis.travel.negativeLimit) - s.x(0)" height="5" fill="var(--stop)" :opacity="s.live?.negativeLimit ? 1 : 0.45" />
        <rect :x="s.x(s.axis.travel.positiveLimit)" y="23" :width="s.x(s.axis.travel.length) - s.x(s.axis.travel.positiveLimit)" height="5" fill="var(--stop)" :opacity="s.live?.positiveLimit ? 1 : 0.45" />
        <rect :x="s.x(s.axis.travel.camFrom)" y="15" :width="Math.max(3, s.x(s.axis.travel.camTo) - s.x(s.axis.travel.camFrom))" height="10"
          :fill="s.live?.referenceCam ? 'var(--ref)' : 'none'" stroke="var(--ref)" stroke-width="1.4" />
        <path :transform="`translate(${s.x(s.place)} 0)`" d="M0 6l5 9h-10z" fill="var(--act)" />
        <template v-if="s.soft">
          <text :x="Math.max(0, s.soft.from - 6)" y="38">{{ fixed(s.axis.limits.softMin, 0) }}</text>
          <text :x="s.soft.to" y="38" text-anchor="end">{{ fixed(s.axis.limits.softMax, 0) }}</text>
        </template>
      </svg>
      <span v-if="!many" class="row small"><span>{{ s.live ? (s.live.referenced ? 'referenced' : 'not referenced') : 'run the bench below' }}</span><span v-if="s.live">{{ s.live.driveState }}</span></span>
    </button>
    <v-menu v-if="s.index === machine.axisIndex">
      <template #activator="{ props }"><v-btn v-bind="props" class="more" :icon="mdiDotsVertical" size="x-small" variant="text" :aria-label="`What can be done with ${s.axis.name}`" /></template>
      <v-list density="compact">
        <v-list-item :prepend-icon="mdiPencil" title="Rename" @click="act('RENAME', s.index)" />
        <v-list-item :prepend-icon="mdiContentCopy" title="Copy" @click="act('COPY', s.index)" />
        <v-list-item :prepend-icon="mdiArrowUp" title="Move up" :disabled="s.index === 0" @click="edit({ edit: 'MOVE', to: s.index - 1 }, s.index)" />
        <v-list-item :prepend-icon="mdiArrowDown" title="Move down" :disabled="s.index === strips.length - 1" @click="edit({ edit: 'MOVE', to: s.index + 1 }, s.index)" />
        <v-list-item :prepend-icon="mdiDelete" title="Remove" @click="act('REMOVE', s.index)" />
      </v-list>
    </v-menu>
    <template v-if="s.index === machine.axisIndex">
      <NewAxis v-if="doing === 'COPY' || doing === 'RENAME'" :key="doing" class="form" :edit="doing" :axis="s.axis.name" @done="doing = null" />
      <div v-if="doing === 'REMOVE'" class="form" role="group" :aria-label="`Remove ${s.axis.name}`">
        <b>Remove {{ s.axis.name }}?</b>
        <ul v-if="dependents.length"><li v-for="d in dependents" :key="d">{{ d }}</li></ul>
        <p v-else>Nothing else depends on it.</p>
        <v-btn color="error" variant="flat" @click="edit({ edit: 'REMOVE' }, s.index)">Remove</v-btn> <v-btn @click="doing = null">Leave it</v-btn>
      </div>
    </template>
    </div>
    <p v-if="strips.length === 0 && doing !== 'ADD'" class="empty">No axis yet. <button type="button" class="link" @click="doing = 'ADD'">Add the first</button></p>
  </aside>
</template>

<style scoped>
.rail { border-right: 1px solid var(--hair); padding: 4px 8px 8px; width: 228px; }
.rail.folded { width: 46px; padding: 4px; display: flex; flex-direction: column; gap: 3px; }
.title { display: flex; justify-content: space-between; align-items: center; min-height: 28px; }
.title h2 { margin: 0; font-size: 12.5px; color: var(--pencil); }
.one { position: relative; }
.more { position: absolute; right: 3px; top: 24px; }
.strip { display: block; width: 100%; text-align: left; padding: 6px 9px; margin-bottom: 7px; cursor: pointer; color: var(--ink); font: inherit; }
.strip.selected, .narrow.selected { outline: 2px solid var(--ink); outline-offset: -2px; }
.narrow { position: relative; border: 1px solid var(--hair); background: var(--sheet); color: var(--ink); border-radius: 4px; font: inherit; font-size: 12px; padding: 3px 0; cursor: pointer; width: 100%; flex: none; }
.narrow.wrong { color: var(--stop); font-weight: 700; }
.form { margin-top: 4px; border-left: 3px solid var(--cmd); padding: 4px 0 6px 8px; margin-bottom: 9px; font-size: 13px; }
.form ul { margin: 4px 0 6px; padding-left: 16px; }
.form p { margin: 4px 0 6px; }
.row { display: flex; justify-content: space-between; gap: 6px; }
.row b { overflow: hidden; text-overflow: ellipsis; }
.state { font-size: 12px; color: var(--pencil); white-space: nowrap; }
.state.fault { color: var(--stop); font-weight: 700; }
.value { font-size: 19px; font-weight: 600; display: block; }
.value.compact { font-size: 14px; }
.unit, .small { font-size: 12px; color: var(--pencil); }
</style>
