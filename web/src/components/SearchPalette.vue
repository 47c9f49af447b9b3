<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import { useEventListener } from '@vueuse/core'
import { useRouter } from 'vue-router'
import { placeOf, stages, type StageKey } from '../router'
import { useBench } from '../stores/bench'
import { useHand } from '../stores/hand'
import { useMachine } from '../stores/machine'

const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ theme: [] }>()
const machine = useMachine()
const bench = useBench()
const hand = useHand()
const router = useRouter()
const query = ref('')
const at = ref(0)
const input = ref<HTMLInputElement | null>(null)

interface Hit { title: string; kind: string; go: () => void }

async function focusField(stage: StageKey, path: string) {
  await router.push(placeOf(stage))
  await nextTick()
  document.getElementById('f' + path.replace(/\//g, '-'))?.focus()
}

const hits = computed<Hit[]>(() => {
  const all: Hit[] = stages.map((s) => ({ title: s.title, kind: 'stage', go: () => void router.push(placeOf(s.key)) }))
  machine.draft?.axes.forEach((axis, i) => {
    all.push({ title: axis.name, kind: 'axis', go: () => (machine.axisIndex = i) })
    for (const entry of [...axis.station.outputs, ...axis.station.inputs]) {
      if (entry.tag) all.push({ title: entry.tag, kind: 'tag', go: () => { machine.axisIndex = i; void router.push(placeOf('map', axis.name)) } })
    }
    const fields: [StageKey, string, string][] = [
      ['scale', 'train/reducers/0/motorTurns', 'Reducer, motor turns'], ['scale', 'train/reducers/0/outputTurns', 'Reducer, output turns'], ['scale', 'encoder/kind', 'Encoder kind'],
      ['scale', 'train/feed/amount', 'Pitch, lead or amount'], ['scale', 'load/mass', 'Mass'], ['scale', 'limits/softMin', 'Negative soft limit'], ['scale', 'limits/softMax', 'Positive soft limit'],
      ['scale', 'limits/max/speed', 'Highest speed'], ['scale', 'limits/max/acceleration', 'Highest acceleration'], ['tune', 'control/positionGain', 'Position gain'], ['tune', 'control/velocityGain', 'Velocity gain'],
      ['home', 'homing/searchSpeed', 'Search speed'], ['home', 'homing/creepSpeed', 'Creep speed'], ['home', 'homing/zeroOffset', 'Zero offset'],
      ['scale', 'loadEncoder/use', 'Encoder on the load'], ['tune', 'supervision/positionWindow', 'Position window'], ['tune', 'supervision/standstillWindow', 'Standstill window'],
      ['tune', 'supervision/followingError', 'Following error allowed'],
    ]
    for (const [stage, path, title] of fields) all.push({ title: `${axis.name}: ${title}`, kind: 'parameter', go: () => { machine.axisIndex = i; void focusField(stage, `/axes/${i}/${path}`) } })
  })
  all.push(
    { title: 'Overview', kind: 'stage', go: () => void router.push(placeOf('overview')) },
    { title: 'Traces of runs and recordings', kind: 'page', go: () => void router.push(placeOf('traces')) },
    { title: 'All machines', kind: 'command', go: () => void router.push({ name: 'machines' }) },
    { title: 'Run the program', kind: 'command', go: () => void bench.start('PROGRAM', true) },
    { title: 'Home the axis on the bench', kind: 'command', go: () => void bench.start('HOMING', true) },
    { title: 'Move by hand', kind: 'command', go: () => { bench.deviceOpen = false; hand.open = true } },
    { title: 'What the device holds', kind: 'command', go: () => { hand.open = false; bench.deviceOpen = true } },
    ...(machine.draft?.proofs ?? []).map((proof, i) => ({ title: machine.draft!.proofs.length > 1 ? `Run the proof “${proof.name}”` : 'Run the proof', kind: 'command', go: () => { machine.proofIndex = i; void router.push(placeOf('prove')); void machine.prove() } })),
    ...(bench.state && !bench.state.stopped ? [{ title: 'Stop all axes', kind: 'command', go: () => void bench.order('stop') }] : []),
    { title: 'Undo', kind: 'command', go: () => void machine.undo() },
    { title: 'Redo', kind: 'command', go: () => void machine.redo() },
    { title: 'Switch between light and dark', kind: 'command', go: () => emit('theme') },
  )
  const words = query.value.toLowerCase().split(/\s+/).filter(Boolean)
  return all.filter((h) => words.every((w) => `${h.title} ${h.kind}`.toLowerCase().includes(w))).slice(0, 12)
})

watch(open, async (now) => {
  if (!now) return
  query.value = ''
  at.value = 0
  await nextTick()
  setTimeout(() => input.value?.focus(), 30)
})
watch(query, () => (at.value = 0))

/* Whoever types ahead is faster than the dialog on a slow machine: while it is open every key is meant for it, wherever the focus still is. */
useEventListener(window, 'keydown', (event) => {
  if (!open.value || event.isComposing) return
  if (event.key === 'ArrowDown') at.value = Math.min(at.value + 1, hits.value.length - 1)
  else if (event.key === 'ArrowUp') at.value = Math.max(at.value - 1, 0)
  else if (event.key === 'Enter') choose(hits.value[at.value])
  else {
    if (event.key.length !== 1 || event.ctrlKey || event.metaKey || event.altKey) return
    /* a dialog that is still fading in takes no focus */
    input.value?.focus()
    if (document.activeElement === input.value) return
    query.value += event.key
  }
  event.preventDefault()
})

function choose(hit: Hit | undefined) {
  if (!hit) return
  open.value = false
  hit.go()
}
</script>

<template>
  <v-dialog v-model="open" width="520" scrim aria-label="Find anything">
    <div class="sheet palette">
      <input ref="input" v-model="query" class="plain query" role="combobox" aria-expanded="true" aria-controls="hits" :aria-activedescendant="'hit' + at"
        placeholder="Stage, axis, tag, parameter, command" aria-label="Find a stage, axis, tag, parameter or command" />
      <ul id="hits" role="listbox" aria-label="Found">
        <li v-for="(hit, i) in hits" :id="'hit' + i" :key="hit.kind + hit.title" role="option" :aria-selected="i === at" :class="{ at: i === at }" @click="choose(hit)" @mousemove="at = i">
          {{ hit.title }} <span>{{ hit.kind }}</span>
        </li>
      </ul>
      <p v-if="hits.length === 0" class="empty">Nothing is called “{{ query }}”. Try part of a name.</p>
    </div>
  </v-dialog>
</template>

<style scoped>
.palette { padding: 10px; color: var(--ink); }
.query { width: 100%; font-size: 16px; padding: 7px 10px; }
ul { list-style: none; margin: 8px 0 0; padding: 0; }
li { display: flex; justify-content: space-between; padding: 4px 8px; border-radius: 4px; cursor: pointer; }
li.at { background: var(--cmd-wash); outline: 1px solid var(--cmd); }
li span { color: var(--pencil); font-size: 12px; }
</style>
