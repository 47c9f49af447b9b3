<script setup lang="ts">
import { computed } from 'vue'
import NumberField from '../components/NumberField.vue'
import { useMachine } from '../stores/machine'

const machine = useMachine()
const axis = computed(() => machine.axis!)
const at = computed(() => `/axes/${machine.axisIndex}`)
const unit = computed(() => axis.value.unit.symbol)
</script>

<template>
  <h1>Scale · {{ axis.name }}</h1>
  <p class="sub">From the encoder to the load. Change a part and see at once, on the right, what it causes.</p>
  <div class="sheet train">
    <svg viewBox="0 0 724 132" class="drawing" role="img" aria-label="Drive train: encoder, motor, reducer, pinion on a rack, load">
      <path d="M10 66H470" stroke="var(--pencil)" stroke-dasharray="12 3 2 3" />
      <rect x="24" y="44" width="40" height="44" fill="none" stroke="var(--ink)" stroke-width="1.6" />
      <path d="M44 44v44M34 44v44M54 44v44" stroke="var(--pencil)" stroke-width="0.8" />
      <text x="44" y="34" text-anchor="middle">encoder</text>
      <rect x="64" y="34" width="96" height="64" fill="var(--cmd-wash)" stroke="var(--ink)" stroke-width="1.8" />
      <path d="M80 34v64M96 34v64M112 34v64M128 34v64M144 34v64" stroke="var(--pencil)" stroke-width="0.6" />
      <text x="112" y="26" text-anchor="middle">motor</text>
      <path d="M160 66h60" stroke="var(--ink)" stroke-width="5" />
      <path d="M220 40h60v52h-60zM280 30h66v72h-66z" fill="none" stroke="var(--ink)" stroke-width="1.8" />
      <text x="283" y="22" text-anchor="middle">reducer</text>
      <text x="283" y="118" text-anchor="middle" class="figure">{{ axis.reducer.motorTurns }} : {{ axis.reducer.outputTurns }}</text>
      <path d="M346 66h74" stroke="var(--ink)" stroke-width="8" />
      <circle cx="446" cy="66" r="30" fill="var(--sheet)" stroke="var(--ink)" stroke-width="1.8" />
      <circle cx="446" cy="66" r="25" fill="none" stroke="var(--pencil)" stroke-dasharray="5 4.2" stroke-width="5" />
      <circle cx="446" cy="66" r="5" fill="var(--ink)" />
      <text x="446" y="26" text-anchor="middle">pinion, {{ axis.feed.teeth }} teeth</text>
      <path d="M392 100H714" stroke="var(--ink)" stroke-width="1.6" />
      <path d="M392 100l5 -7h6l5 7h6l5 -7h6l5 7h6l5 -7h6l5 7h6l5 -7h6l5 7h6l5 -7h6l5 7h6l5 -7h6l5 7h6l5 -7h6l5 7h6l5 -7h6l5 7h6l5 -7h6l5 7h6l5 -7h6l5 7h6l5 -7h6l5 7" fill="none" stroke="var(--ink)" />
      <text x="400" y="116">rack</text>
      <rect x="592" y="40" width="96" height="50" fill="none" stroke="var(--act)" stroke-width="2" />
      <text x="640" y="34" text-anchor="middle">load</text>
      <text x="640" y="70" text-anchor="middle" class="figure">{{ axis.load.mass }} kg</text>
      <path d="M498 66h84M498 61v10M582 66l-8 -4v8z" stroke="var(--act)" fill="var(--act)" />
      <text x="538" y="58" text-anchor="middle">travel, {{ unit }}</text>
    </svg>
    <div class="parts">
      <fieldset>
        <legend>Motor and encoder</legend>
        <NumberField :path="`${at}/encoder/countsPerTurn`" label="Counts per turn" :value="axis.encoder.countsPerTurn" whole title="2^bits of an absolute encoder, or lines × 4" />
        <NumberField :path="`${at}/motor/maxSpeed`" label="Highest motor speed" :value="axis.motor.maxSpeed" unit="1/min" />
        <NumberField :path="`${at}/motor/peakTorque`" label="Peak torque" :value="axis.motor.peakTorque" unit="N·m" />
        <NumberField :path="`${at}/motor/ratedTorque`" label="Rated torque" :value="axis.motor.ratedTorque" unit="N·m" />
        <NumberField :path="`${at}/motor/inertia`" label="Rotor inertia" :value="axis.motor.inertia" unit="kg·m²" />
      </fieldset>
      <fieldset>
        <legend>Reducer</legend>
        <NumberField :path="`${at}/reducer/motorTurns`" label="Reducer, motor turns" :value="axis.reducer.motorTurns" whole title="Whole turns of the motor for the output turns below" />
        <NumberField :path="`${at}/reducer/outputTurns`" label="Reducer, output turns" :value="axis.reducer.outputTurns" whole />
      </fieldset>
      <fieldset>
        <legend>Rack and pinion</legend>
        <NumberField :path="`${at}/feed/teeth`" label="Teeth of the pinion" :value="axis.feed.teeth" whole />
        <NumberField :path="`${at}/feed/pitch`" label="Pitch" :value="axis.feed.pitch" :unit="unit" title="Travel of one tooth" />
        <NumberField :path="`${at}/unit/decimals`" label="Decimals on the wire" :value="axis.unit.decimals" whole />
      </fieldset>
      <fieldset>
        <legend>Load</legend>
        <NumberField :path="`${at}/load/mass`" label="Mass" :value="axis.load.mass" unit="kg" />
        <NumberField :path="`${at}/load/coulomb`" label="Coulomb friction" :value="axis.load.coulomb" unit="N" />
        <NumberField :path="`${at}/load/viscous`" label="Viscous friction" :value="axis.load.viscous" unit="N·s/m" />
      </fieldset>
    </div>
  </div>
  <h2 class="gap">Limits and control</h2>
  <div class="row">
    <NumberField :path="`${at}/limits/softMin`" label="Negative soft limit" :value="axis.limits.softMin" :unit="unit" />
    <NumberField :path="`${at}/limits/softMax`" label="Positive soft limit" :value="axis.limits.softMax" :unit="unit" />
    <NumberField :path="`${at}/limits/maxSpeed`" label="Highest speed" :value="axis.limits.maxSpeed" :unit="unit + '/s'" />
    <NumberField :path="`${at}/limits/maxAcceleration`" label="Highest acceleration" :value="axis.limits.maxAcceleration" :unit="unit + '/s²'" />
    <NumberField :path="`${at}/limits/maxJerk`" label="Highest jerk" :value="axis.limits.maxJerk" :unit="unit + '/s³'" title="0: no limit, trapezoid" />
    <NumberField :path="`${at}/limits/quickStop`" label="Quick stop" :value="axis.limits.quickStop" :unit="unit + '/s²'" />
    <NumberField :path="`${at}/limits/followingError`" label="Following error" :value="axis.limits.followingError" :unit="unit" />
    <NumberField :path="`${at}/limits/followingErrorTime`" label="allowed for" :value="axis.limits.followingErrorTime" unit="ms" whole />
    <NumberField :path="`${at}/control/positionGain`" label="Position gain" :value="axis.control.positionGain" unit="1/s" title="Kv: following error without feed-forward = speed ÷ Kv" />
    <NumberField :path="`${at}/control/velocityGain`" label="Velocity gain" :value="axis.control.velocityGain" unit="N·m·s" title="Kp, N·m·s/rad at the motor" />
    <NumberField :path="`${at}/control/integralTime`" label="Integral time" :value="axis.control.integralTime" unit="ms" />
    <NumberField :path="`${at}/control/feedForward`" label="Speed feed-forward" :value="axis.control.feedForward" title="0 none, 1 the whole commanded speed" />
    <NumberField :path="`${at}/control/torqueForward`" label="Torque feed-forward" :value="axis.control.torqueForward" title="0 none, 1 the whole torque of the commanded acceleration" />
  </div>
</template>

<style scoped>
.train { padding: 4px 10px 10px; }
.train svg { width: 100%; height: auto; max-height: 140px; }
.parts { display: grid; grid-template-columns: 2fr 1.05fr 1.05fr 1.05fr; gap: 8px; }
fieldset { border: 0; border-top: 1px solid var(--hair); padding: 2px 0 0; display: flex; flex-wrap: wrap; gap: 4px 10px; align-content: flex-start; }
legend { font-weight: 650; font-size: 13px; padding-right: 6px; }
.gap { margin-top: 12px; }
.row { display: flex; flex-wrap: wrap; gap: 6px 12px; }
</style>
