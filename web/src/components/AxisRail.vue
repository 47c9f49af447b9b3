<script setup lang="ts">
import { computed, ref } from 'vue'
import { api } from '../api/client'
import { fixed } from '../lib/numbers'
import { useBench } from '../stores/bench'
import { useMachine } from '../stores/machine'

const machine = useMachine()
const bench = useBench()
const newName = ref('')
const refusal = ref('')

/** A new axis begins as a screw on a level line; its load is still to be entered. */
async function addAxis() {
  const name = newName.value.trim()
  const taken = machine.draft!.axes.some((a) => a.name.toUpperCase() === name.toUpperCase())
  refusal.value = !/^[A-Za-z_][A-Za-z0-9_]*$/.test(name) ? `${name} is refused. Allowed: a letter, then letters, digits or _; the program uses it as an identifier.`
    : taken ? `${name} is refused. Allowed: a name no other axis has.` : ''
  if (refusal.value) return
  const axis = await machine.ordered((document) => api.newAxis(document, name))
  if (!axis) return
  machine.edit({ op: 'add', path: '/axes/-', value: axis })
  machine.axisIndex = machine.draft!.axes.length - 1
  newName.value = ''
}

function removeAxis() {
  const index = machine.axisIndex
  machine.axisIndex = Math.max(0, index - 1)
  machine.edit({ op: 'remove', path: `/axes/${index}` })
}

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
  <aside class="rail pane" aria-label="Axes">
    <button v-for="s in strips" :key="s.axis.name" type="button" class="strip sheet" :class="{ selected: s.index === machine.axisIndex }"
      :aria-pressed="s.index === machine.axisIndex" @click="machine.axisIndex = s.index">
      <span class="row"><b>{{ s.axis.name }}</b><span class="state" :class="{ fault: s.fault }" data-testid="axis-state">{{ s.state }}</span></span>
      <span class="value mono" data-testid="axis-position">{{ s.live ? fixed(s.live.position, 3) : '–' }} <span class="unit">{{ s.axis.unit.symbol }}</span></span>
      <svg v-if="s.endless" :width="WIDTH" height="52" :viewBox="`0 0 ${WIDTH} 52`" class="drawing" role="img"
        :aria-label="`Dial of ${s.axis.name}: standing ${fixed(((s.place % s.axis.travel.length) + s.axis.travel.length) % s.axis.travel.length, 2)} ${s.axis.unit.symbol} into its turn`">
        <circle cx="28" cy="26" r="21" fill="none" stroke="var(--pencil)" />
        <path d="M28 2v6M52 26h-6M28 50v-6M4 26h6" stroke="var(--pencil)" />
        <path v-if="s.axis.travel.camTo > s.axis.travel.camFrom" :d="arc(s.camAngles[0], s.camAngles[1])" fill="none" stroke="var(--ref)" :stroke-width="s.live?.referenceCam ? 6 : 3" />
        <path :transform="`rotate(${s.angle} 28 26)`" d="M28 26V9" stroke="var(--act)" stroke-width="3" />
        <text x="60" y="24">{{ s.axis.modulo > 0 ? `0 … ${s.axis.modulo}, endless` : 'endless, counts on' }}</text>
        <text x="60" y="40">{{ s.live ? `${fixed(s.live.speed, 1)} ${s.axis.unit.symbol}/s` : '' }}</text>
      </svg>
      <svg v-else :width="WIDTH" height="40" :viewBox="`0 0 ${WIDTH} 40`" class="drawing" role="img"
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
      <span class="row small"><span>{{ s.live ? (s.live.referenced ? 'referenced' : 'not referenced') : 'run the bench below' }}</span><span v-if="s.live">{{ s.live.driveState }}</span></span>
    </button>
    <form class="add" @submit.prevent="addAxis">
      <input v-model="newName" class="plain" aria-label="Name of a new axis" placeholder="New axis" maxlength="32" :aria-invalid="Boolean(refusal)" />
      <v-btn type="submit" size="small" :disabled="newName.trim() === ''">Add</v-btn>
      <v-btn size="small" variant="text" :disabled="(machine.draft?.axes.length ?? 0) < 2" :title="`Takes ${machine.axis?.name} out of the machine; undo brings it back`" @click="removeAxis">Remove</v-btn>
      <p v-if="refusal" class="fault-text" role="alert">{{ refusal }}</p>
    </form>
  </aside>
</template>

<style scoped>
.rail { border-right: 1px solid var(--hair); padding: 8px; }
.strip { display: block; width: 100%; text-align: left; padding: 6px 9px; margin-bottom: 7px; cursor: pointer; color: var(--ink); font: inherit; }
.strip.selected { outline: 2px solid var(--ink); outline-offset: -2px; }
.add { display: flex; flex-wrap: wrap; gap: 4px; align-items: center; }
.add input { width: 84px; flex: 1; }
.add p { width: 100%; margin: 0; }
.row { display: flex; justify-content: space-between; gap: 6px; }
.state { font-size: 12px; color: var(--pencil); }
.state.fault { color: var(--stop); font-weight: 700; }
.value { font-size: 19px; font-weight: 600; display: block; }
.unit, .small { font-size: 12px; color: var(--pencil); }
</style>
