<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'
import PickOne from '../components/PickOne.vue'
import ProblemNote from '../components/ProblemNote.vue'
import TraceChooser from '../components/traces/TraceChooser.vue'
import TraceCursors from '../components/traces/TraceCursors.vue'
import TraceLegend from '../components/traces/TraceLegend.vue'
import TraceMeasures from '../components/traces/TraceMeasures.vue'
import TracePane from '../components/traces/TracePane.vue'
import { downloadBlob } from '../lib/download'
import { significant } from '../lib/numbers'
import { placeOf } from '../router'
import { useChoices } from '../stores/choices'
import { useMachine } from '../stores/machine'
import { useTraces } from '../stores/traces'

/** Any signals of any runs and recordings over one time. */
const machine = useMachine()
const traces = useTraces()
const choices = useChoices()
const panes = ref<InstanceType<typeof TracePane>[]>([])
onMounted(() => { traces.looked++; void traces.load() })
onBeforeUnmount(() => traces.looked--)

const print = () => window.print()
/** Phases of a guard are shown: then what it is stands beside them, also on paper. */
const guarded = computed(() => traces.lines.some((l) => l.signal.toLowerCase().endsWith('.guard')))
/** The panes one below the other, each under its lines. */
async function picture() {
  const shown = panes.value.map((p) => p.canvas()).filter((c): c is HTMLCanvasElement => c !== null)
  if (!shown.length) return
  const scale = devicePixelRatio
  const head = 20 * scale
  const canvas = document.createElement('canvas')
  canvas.width = Math.max(...shown.map((c) => c.width))
  canvas.height = shown.reduce((sum, c) => sum + c.height + head, guarded.value ? head : 0)
  const ctx = canvas.getContext('2d')!
  const style = getComputedStyle(document.querySelector('main')!)
  ctx.fillStyle = style.getPropertyValue('--sheet').trim()
  ctx.fillRect(0, 0, canvas.width, canvas.height)
  ctx.font = `${13 * scale}px 'Atkinson Hyperlegible Next Variable'`
  ctx.fillStyle = style.getPropertyValue('--ink').trim()
  let y = 0
  shown.forEach((c, i) => {
    ctx.fillText(traces.lines.filter((l) => l.pane === traces.panes[i]).map((l) => `${traces.label(l)}${traces.unit(l) ? ` in ${traces.unit(l)}` : ''}`).join('   '), 8 * scale, y + 15 * scale)
    ctx.drawImage(c, 0, y + head)
    y += c.height + head
  })
  if (guarded.value) ctx.fillText(choices.all.guard.note, 8 * scale, y + 15 * scale)
  const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'))
  if (blob) downloadBlob(blob, `${machine.draft!.name} traces.png`)
}
</script>

<template>
  <div class="traces fills">
    <div class="head">
      <h1>Traces</h1>
      <template v-if="traces.lines.length">
        <v-btn @click="traces.whole()">All of it</v-btn><v-btn @click="traces.zoom(0.5)">Closer</v-btn><v-btn @click="traces.zoom(2)">Farther</v-btn><v-btn aria-label="Earlier" @click="traces.pan(-0.3)">←</v-btn><v-btn aria-label="Later" @click="traces.pan(0.3)">→</v-btn>
        <span class="mono span">{{ significant(traces.kept.from, 6) }} to {{ significant(traces.kept.to, 6) }} s</span>
        <span v-if="traces.bandable.length" class="bands">Bands <PickOne label="Bands by a value of the program" :value="traces.bandable.includes(traces.kept.bands) ? traces.kept.bands : ''" :options="[{ code: '', words: 'script only' }, ...traces.bandable]" @pick="traces.change({ bands: $event })" /></span>
        <v-btn class="out" @click="print">Print</v-btn><v-btn @click="picture">PNG</v-btn>
      </template>
    </div>
    <p v-if="traces.known && !traces.sources.length" class="empty">Nothing has been recorded yet. Run a proof, or bring a recording in, in <router-link :to="placeOf('prove')">Prove</router-link>.</p>
    <div v-else class="two">
      <TraceChooser class="choose" />
      <div class="work">
        <ProblemNote v-if="traces.problem" :problem="traces.problem" @close="traces.problem = null" />
        <p v-if="traces.known && !traces.lines.length" class="empty">Choose a signal on the left: it stands here over time. The wheel looks closer, dragging moves on, and two cursors measure.</p>
        <div v-else-if="traces.lines.length" class="stack">
          <div v-for="(pane, i) in traces.panes" :key="pane" class="one">
            <TraceLegend :pane="pane" />
            <div class="canvas"><TracePane ref="panes" :pane="pane" :first="i === 0" :last="i === traces.panes.length - 1" /></div>
          </div>
          <TraceCursors class="cursors" />
        </div>
        <p v-if="guarded" class="sub note" role="note">{{ choices.all.guard.note }}</p>
        <TraceMeasures v-if="traces.lines.length" />
      </div>
    </div>
  </div>
</template>

<style scoped>
.traces { height: 100%; display: flex; flex-direction: column; min-height: 0; }
.head { display: flex; gap: 6px; align-items: center; flex-wrap: wrap; margin-bottom: 6px; }
.head h1 { margin-right: 8px; }
.span { color: var(--pencil); font-size: 12.5px; } .bands { display: flex; gap: 6px; align-items: center; font-size: 13px; width: 210px; } .out { margin-left: auto; }
.two { flex: 1; display: grid; grid-template-columns: 220px minmax(0, 1fr); gap: 10px; min-height: 0; }
.choose { min-height: 0; }
.work { display: flex; flex-direction: column; min-height: 0; gap: 6px; }
.stack { position: relative; flex: 1; min-height: 120px; display: flex; flex-direction: column; border: 1px solid var(--hair); background: var(--sheet); }
.one { flex: 1; min-height: 60px; display: flex; flex-direction: column; }
.one :deep(.legend) { position: relative; z-index: 2; align-self: flex-start; }
.canvas { flex: 1; min-height: 0; }
.note { margin: 0; font-size: 12.5px; }
@media print { .choose, .head .v-btn, .bands { display: none; } .two { grid-template-columns: 1fr; } }
</style>
