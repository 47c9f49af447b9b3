<script setup lang="ts">
import { capital, useChoices, type Choice } from '../stores/choices'
import { mdiDelete, mdiPlus } from '@mdi/js'
import { computed, ref, watch } from 'vue'
import { api, type TurnAnswer } from '../api/client'
import ChoiceField from '../components/ChoiceField.vue'
import NumberField from '../components/NumberField.vue'
import TrainPart from '../components/TrainPart.vue'
import { useAxis } from '../lib/axis'
import { fixed } from '../lib/numbers'

const { machine, bench, axis, at, unit } = useAxis()
const feed = computed(() => axis.value.train.feed)
const linear = computed(() => feedOf(feed.value.kind)?.linear ?? false)
const endless = computed(() => axis.value.kind === 'ENDLESS')
const reducers = computed(() => axis.value.train.reducers)

const choices = useChoices()
const DIRECTIONS = [{ code: 'false', words: 'Normal' }, { code: 'true', words: 'Reversed' }]
const titled = (list: Choice[]) => list.map((c) => ({ code: c.code, words: capital(c.words) }))
const feedOf = (kind: string) => choices.all.feeds.find((f) => f.code === kind)

const QUANTITIES = [
  { key: 'speed', label: 'speed', power: '/s' },
  { key: 'acceleration', label: 'acceleration', power: '/s²' },
  { key: 'deceleration', label: 'deceleration', power: '/s²' },
  { key: 'jerk', label: 'jerk', power: '/s³' },
  { key: 'torque', label: 'torque', power: '' },
] as const

const turned = ref<TurnAnswer | null>(null)
async function turnByHand() {
  turned.value = (await machine.ordered((document, number) => api.turn(document, number, bench.condition[axis.value.name] ?? []))) ?? null
}
/** What was turned was turned with these entries. */
watch([() => machine.axisIndex, () => JSON.stringify([axis.value.encoder, axis.value.train, axis.value.unit])], () => (turned.value = null))

function addReducer() {
  machine.edit({ op: 'add', path: `${at.value}/train/reducers/-`, value: { motorTurns: 1, outputTurns: 1 } })
}

/** Takes the kind and, where the old unit of the amount makes no sense for it, a unit that does. */
function chooseFeed(kind: string) {
  const lengths = ['mm', 'µm', 'm', 'in']
  const now = feed.value.unit
  const fits = kind === 'DIRECT' || (kind === 'FEEDER' ? now === unit.value : lengths.includes(now))
  machine.edit(
    { op: 'replace', path: `${at.value}/train/feed/kind`, value: kind },
    ...(fits ? [] : [{ op: 'replace', path: `${at.value}/train/feed/unit`, value: kind === 'FEEDER' ? unit.value : 'mm' }]),
  )
}
</script>

<template>
  <h1>Scale · {{ axis.name }}</h1>
  <p class="sub">From the encoder to the load. Fields also take calculations and other units, such as 2.5 in.</p>
  <div class="sheet train">
    <TrainPart name="encoder" label="Encoder">
      <ChoiceField :path="`${at}/encoder/kind`" label="Encoder kind" :value="axis.encoder.kind" :options="titled(choices.all.encoderKinds)" />
      <NumberField v-if="axis.encoder.kind === 'INCREMENTAL'" :path="`${at}/encoder/lines`" label="Lines per turn" :value="axis.encoder.lines" whole title="Four counts a line" />
      <template v-else>
        <NumberField :path="`${at}/encoder/singleTurnBits`" label="Bits within a turn" :value="axis.encoder.singleTurnBits" whole unit="bit" title="2^bits counts a turn" />
        <NumberField :path="`${at}/encoder/multiTurnBits`" label="Bits of whole turns" :value="axis.encoder.multiTurnBits" whole unit="bit" title="0: it knows no turns after power-up" />
      </template>
      <ChoiceField :path="`${at}/encoder/reversed`" label="Direction" :value="String(axis.encoder.reversed)" :options="DIRECTIONS" :choose="(v) => machine.set(`${at}/encoder/reversed`, v === 'true')" />
    </TrainPart>
    <TrainPart name="motor" label="Motor" wide>
      <NumberField :path="`${at}/motor/ratedTorque`" label="Rated torque" :value="axis.motor.ratedTorque" unit="N·m" />
      <NumberField :path="`${at}/motor/ratedSpeed`" label="Rated speed" :value="axis.motor.ratedSpeed" unit="1/min" title="The peak torque is there up to this speed" />
      <NumberField :path="`${at}/motor/peakTorque`" label="Peak torque" :value="axis.motor.peakTorque" unit="N·m" />
      <NumberField :path="`${at}/motor/maxSpeed`" label="Top speed" :value="axis.motor.maxSpeed" unit="1/min" />
      <NumberField :path="`${at}/motor/inertia`" label="Rotor inertia" :value="axis.motor.inertia" unit="kg·m²" />
      <NumberField :path="`${at}/motor/torqueAtMaxSpeed`" label="Peak there" :value="axis.motor.torqueAtMaxSpeed" unit="N·m" title="Peak torque at the highest speed; between the rated and the highest speed it falls in a straight line" />
    </TrainPart>
    <TrainPart v-for="(reducer, i) in reducers" :key="i" name="reducer" :label="reducers.length > 1 ? `Reducer ${i + 1}` : 'Reducer'">
      <NumberField :path="`${at}/train/reducers/${i}/motorTurns`" label="Motor turns" :value="reducer.motorTurns" whole title="Whole turns of the motor side for the output turns below" />
      <NumberField :path="`${at}/train/reducers/${i}/outputTurns`" label="Output turns" :value="reducer.outputTurns" whole />
      <v-btn :prepend-icon="mdiDelete" variant="text" size="x-small" :aria-label="`Remove reducer ${i + 1}`" @click="machine.edit({ op: 'remove', path: `${at}/train/reducers/${i}` })">Remove</v-btn>
    </TrainPart>
    <div class="insert"><v-btn :icon="mdiPlus" size="x-small" density="comfortable" aria-label="Add a reducer" title="Add a reducer" @click="addReducer" /></div>
    <TrainPart :name="feed.kind.toLowerCase()" :label="capital(feedOf(feed.kind)?.words ?? '')">
      <ChoiceField :path="`${at}/train/feed/kind`" label="Feed" :value="feed.kind" :options="titled(choices.all.feeds)" :choose="chooseFeed" />
      <NumberField v-if="feedOf(feed.kind)?.toothed" :path="`${at}/train/feed/teeth`" label="Teeth" :value="feed.teeth" whole />
      <template v-if="feedOf(feed.kind)?.amount">
        <NumberField :path="`${at}/train/feed/amount`" :label="feedOf(feed.kind)?.amount ?? ''" :value="feed.amount" :unit="feed.unit" :title="capital(feedOf(feed.kind)?.amountIs ?? '')" />
        <ChoiceField :path="`${at}/train/feed/unit`" label="in unit" :value="feed.unit" :options="feedOf(feed.kind)?.units ?? []" free />
      </template>
    </TrainPart>
    <TrainPart name="load" label="Load" wide last :second-encoder="axis.loadEncoder.use !== 'NONE'">
      <NumberField v-if="linear" :path="`${at}/load/mass`" label="Mass" :value="axis.load.mass" unit="kg" />
      <NumberField :path="`${at}/load/inertia`" :label="linear ? 'Turning inertia' : 'Inertia'" :value="axis.load.inertia" unit="kg·m²" title="Inertia that turns with the last shaft" />
      <NumberField :path="`${at}/load/coulomb`" label="Coulomb friction" :value="axis.load.coulomb" :unit="linear ? 'N' : 'N·m'" />
      <NumberField :path="`${at}/load/viscous`" label="Viscous friction" :value="axis.load.viscous" :unit="linear ? 'N·s/m' : 'N·m·s'" />
      <NumberField v-if="linear" :path="`${at}/load/slope`" label="Slope" :value="axis.load.slope" unit="°" title="0 level, 90 upward" />
      <NumberField :path="`${at}/load/stiffness`" label="Shaft stiffness" :value="axis.load.stiffness" unit="N·m/rad" title="Between motor and load, at the motor shaft; 0 for rigid" />
      <template v-if="axis.load.stiffness > 0">
        <NumberField :path="`${at}/load/damping`" label="Shaft damping" :value="axis.load.damping" unit="N·m·s" title="Of that spring, N·m·s/rad" />
        <NumberField :path="`${at}/load/backlash`" label="Backlash" :value="axis.load.backlash" :unit="unit" title="Play between motor and load" />
      </template>
    </TrainPart>
  </div>
  <div class="turn">
    <v-btn :disabled="machine.faults.length > 0" @click="turnByHand">Turn the motor shaft once by hand</v-btn>
    <span v-if="turned" role="status" data-testid="turned"><b :class="turned.agrees ? 'ok' : 'stop'">{{ turned.agrees ? 'Agrees' : 'Does not agree' }}:&nbsp;</b>
      <span class="mono">{{ turned.turned.counted }}</span> counts made, <span class="mono">{{ turned.turned.expected }}</span> expected; the position moved <span class="mono">{{ fixed(turned.turned.moved, axis.unit.decimals) }} {{ unit }}</span> of <span class="mono">{{ fixed(turned.turned.should, 4) }} {{ unit }}</span>.</span>
    <span v-else class="sub">The first check of encoder, gear and unit, with the drive off.</span>
  </div>
  <div class="columns">
    <section aria-label="Axis and unit">
      <h2>Axis and unit</h2>
      <div class="row">
        <ChoiceField :path="`${at}/kind`" label="Kind of axis" :value="axis.kind" :options="titled(choices.all.axisKinds)" />
        <ChoiceField :path="`${at}/unit/symbol`" label="User unit" :value="axis.unit.symbol" :options="choices.all.units" free />
        <NumberField :path="`${at}/unit/decimals`" label="Decimals on the wire" :value="axis.unit.decimals" whole />
        <NumberField v-if="endless" :path="`${at}/modulo`" label="Modulo" :value="axis.modulo" :unit="unit" title="The position begins again after this; 0: it counts on" />
        <NumberField :path="`${at}/gearBits`" label="Electronic gear" :value="axis.gearBits" unit="bit" whole title="Width of the drive's numerator and denominator" />
      </div>
      <h2 class="gap">Holding brake</h2>
      <div class="row">
        <NumberField :path="`${at}/brake/torque`" label="Brake torque" :value="axis.brake.torque" unit="N·m" title="0: no brake" />
        <template v-if="axis.brake.torque > 0">
          <NumberField :path="`${at}/brake/releaseMillis`" label="Opens in" :value="axis.brake.releaseMillis" unit="ms" whole />
          <NumberField :path="`${at}/brake/closeMillis`" label="Closes in" :value="axis.brake.closeMillis" unit="ms" whole title="The motor holds the load meanwhile" />
        </template>
      </div>
      <h2 class="gap">Duty</h2>
      <div class="row">
        <NumberField :path="`${at}/duty/distance`" label="There and back" :value="axis.duty.distance" :unit="unit" title="Way of one move, with the default speed and acceleration" />
        <NumberField :path="`${at}/duty/pause`" label="Rest after each" :value="axis.duty.pause" unit="s" />
      </div>
    </section>
    <section aria-label="Limits and defaults">
      <h2>Limits and defaults</h2>
      <v-table class="plain">
        <thead><tr><th></th><th>Default</th><th>Highest</th></tr></thead>
        <tbody>
          <tr v-for="q in QUANTITIES" :key="q.key">
            <td>{{ q.label }}</td>
            <td><NumberField :path="`${at}/limits/normal/${q.key}`" :label="`Default ${q.label}`" hide-label :value="axis.limits.normal[q.key]" :unit="q.key === 'torque' ? '%' : unit + q.power" :title="q.key === 'jerk' ? '0: no limit, trapezoid' : q.key === 'torque' ? 'Share of the rated torque' : undefined" /></td>
            <td><NumberField :path="`${at}/limits/max/${q.key}`" :label="`Highest ${q.label}`" hide-label :value="axis.limits.max[q.key]" :unit="q.key === 'torque' ? '%' : unit + q.power" /></td>
          </tr>
        </tbody>
      </v-table>
      <div class="row under">
        <template v-if="!endless">
          <NumberField :path="`${at}/limits/softMin`" label="Negative soft limit" :value="axis.limits.softMin" :unit="unit" />
          <NumberField :path="`${at}/limits/softMax`" label="Positive soft limit" :value="axis.limits.softMax" :unit="unit" />
        </template>
        <NumberField :path="`${at}/limits/quickStop`" label="Quick stop" :value="axis.limits.quickStop" :unit="unit + '/s²'" />
      </div>
      <h2 class="gap">Encoder on the load</h2>
      <div class="row">
        <ChoiceField :path="`${at}/loadEncoder/use`" label="Used" :value="axis.loadEncoder.use" :options="titled(choices.all.loadEncoderUses)" />
        <template v-if="axis.loadEncoder.use !== 'NONE'">
          <ChoiceField :path="`${at}/loadEncoder/encoder/kind`" label="Encoder on the load" :value="axis.loadEncoder.encoder.kind" :options="titled(choices.all.encoderKinds)" />
          <NumberField v-if="axis.loadEncoder.encoder.kind === 'INCREMENTAL'" :path="`${at}/loadEncoder/encoder/lines`" label="Lines per load turn" :value="axis.loadEncoder.encoder.lines" whole title="Four counts a line" />
          <NumberField v-else :path="`${at}/loadEncoder/encoder/singleTurnBits`" label="Bits within a load turn" :value="axis.loadEncoder.encoder.singleTurnBits" whole unit="bit" />
          <ChoiceField :path="`${at}/loadEncoder/encoder/reversed`" label="Its direction" :value="String(axis.loadEncoder.encoder.reversed)" :options="DIRECTIONS" :choose="(v) => machine.set(`${at}/loadEncoder/encoder/reversed`, v === 'true')" />
        </template>
      </div>
    </section>
  </div>
</template>

<style scoped>
.train { display: flex; padding: 4px 8px 8px; gap: 0; overflow-x: auto; }
.insert { width: 0; position: relative; z-index: 1; }
.insert .v-btn { position: absolute; top: 41px; left: -12px; background: var(--sheet); }
.columns { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1.25fr); gap: 18px; margin-top: 10px; }
section:first-child { --field-width: 142px; }
.row { display: flex; flex-wrap: wrap; gap: 4px 10px; }
.turn { display: flex; gap: 10px; align-items: center; margin-top: 8px; font-size: 13px; }
.turn .sub { margin: 0; }
.ok { color: var(--ok); } .stop { color: var(--stop); }
.gap { margin-top: 8px; }
.under { margin-top: 6px; }
td { border: 0 !important; padding: 1px 6px 1px 0 !important; }
th { padding: 0 6px 2px 0 !important; }
</style>
