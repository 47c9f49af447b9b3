<script setup lang="ts">
import { computed } from 'vue'
import { api, type Schemas } from '../../api/client'
import { useAxis } from '../../lib/axis'
import { useMaster } from '../../lib/master'
import { useChoices } from '../../stores/choices'
import NumberField from '../NumberField.vue'
import PickOne from '../PickOne.vue'
import TextEntry from '../TextEntry.vue'

/** How the axis follows, as sentences with slots. */
const { machine, axis, at, unit } = useAxis()
const choices = useChoices()
const f = computed(() => axis.value.following)
const root = computed(() => `${at.value}/following`)
const set = (slot: string, value: unknown) => machine.set(`${root.value}/${slot}`, value)
const virtuals = computed(() => (machine.draft?.plc.virtualMasters ?? []).map((v) => v.name))
const others = computed(() => [...(machine.draft?.axes ?? []).filter((a) => a.name !== axis.value.name).map((a) => a.name), ...(f.value.source === 'ACTUAL' ? [] : virtuals.value)])
const { encoder, unit: masterUnit } = useMaster()
const meaning = computed(() => choices.all.follow.meanings.find((m) => m.code === f.value.lock)?.words ?? '')

const w = computed(() => f.value.watch)
const keepings = [{ code: 'KEPT', words: 'kept' }, { code: 'FORGOTTEN', words: 'forgotten' }]

/** What was never entered is filled in by the core. */
async function follow(source: string) {
  const begun = await machine.ordered((document, number) => machine.byKey(document, (asked) => api.follow(asked, number, source as Schemas['MasterQuestion']['source'], f.value.master)))
  if (begun) machine.set(root.value, begun)
}
</script>

<template>
  <div class="sentences" role="group" :aria-label="`How ${axis.name} follows`">
    <p class="sentence">
      {{ axis.name }} follows
      <PickOne sentence label="What it follows" :value="f.source" :options="choices.all.follow.sources.map((s) => ({ ...s, disabled: (s.code === 'SETPOINT' || s.code === 'ACTUAL') && others.length === 0 }))" @pick="follow" />
      <template v-if="f.source !== 'NONE'">
        <template v-if="!encoder"><PickOne sentence label="Master" :value="f.master" :options="others" @pick="(name) => set('master', name)" />,&#32;</template><template v-else>,&#32;</template>
        <template v-if="f.ratio.form === 'TURNS'">
          <NumberField :path="`${root}/ratio/out`" label="Turns of the follower" hide-label :value="f.ratio.out" whole class="inline short" title="A minus turns it the other way" /> for
          <NumberField :path="`${root}/ratio/in`" label="Turns of the master" hide-label :value="f.ratio.in" whole class="inline short" /></template>
        <template v-else-if="f.ratio.form === 'DECIMAL'">
          <NumberField :path="`${root}/ratio/decimal`" label="Ratio as a decimal" hide-label :value="f.ratio.decimal" :unit="`${unit} a ${masterUnit}`" class="inline" /></template>
        <template v-else>one for one</template>,
        by <PickOne sentence label="Ratio given by" :value="f.ratio.form" :options="choices.all.follow.forms" @pick="(code) => set('ratio/form', code)" />.
      </template>
    </p>
    <template v-if="f.source !== 'NONE'">
      <p class="sentence">
        It is locked <PickOne sentence label="Lock" :value="f.lock" :options="choices.all.follow.locks" @pick="(code) => set('lock', code)" /><template v-if="f.lock === 'MEETING'">:
          {{ f.master }} at <NumberField :path="`${root}/meeting/master`" label="Meeting point of the master" hide-label :value="f.meeting.master" :unit="masterUnit" class="inline" />,
          {{ axis.name }} at <NumberField :path="`${root}/meeting/follower`" label="Meeting point of the follower" hide-label :value="f.meeting.follower" :unit="unit" class="inline" />, on a way of
          <NumberField :path="`${root}/meeting/way`" label="Way of the master to the meeting point" hide-label :value="f.meeting.way" :unit="masterUnit" class="inline" title="Of the master; 0 for all that is left" /></template><template v-if="f.lock === 'POSITION'">, at most
          <NumberField :path="`${root}/catchUp`" label="Catch-up limit" hide-label :value="f.catchUp" :unit="unit + '/s'" class="inline" title="The most it may be faster or slower than its master while it makes up lost way" /> faster than its master</template>;
        let go, it <PickOne sentence label="When released" :value="f.release" :options="choices.all.follow.releases" @pick="(code) => set('release', code)" />.
        <span class="meaning">{{ meaning }}.</span>
      </p>
      <p class="sentence">
        A trim moves its phase at <NumberField :path="`${root}/trimSpeed`" label="Trim speed" hide-label :value="f.trimSpeed" :unit="unit + '/s'" class="inline" title="Speed at which the phase is moved while it is trimmed" />
        with <NumberField :path="`${root}/trimAcceleration`" label="Trim acceleration" hide-label :value="f.trimAcceleration" :unit="unit + '/s²'" class="inline" :title="`0 takes the default of the axis, ${axis.limits.normal.acceleration} ${unit}/s²`" />,
        by <NumberField :path="`${root}/trimDistance`" label="Trim distance" hide-label :value="f.trimDistance" :unit="unit" class="inline" title="0: it trims as long as the input is on" />
        at each edge of a trim input <span v-if="f.trimDistance === 0" class="meaning">(0: as long as it is on)</span>;
        when it is let go the trim is <PickOne sentence label="Trim when let go" :value="f.trimKept ? 'KEPT' : 'FORGOTTEN'" :options="keepings" @pick="(kept) => set('trimKept', kept === 'KEPT')" />.
      </p>
      <p class="sentence" role="group" aria-label="What is watched">
        <template v-if="encoder">When a line of the encoder breaks, it <PickOne sentence label="When a line breaks" :value="w.line" :options="choices.all.follow.reactions" @pick="(code) => set('watch/line', code)" />.&#32;<template v-if="f.encoder.signal === 'QUADRATURE' && f.encoder.index">When its
          index pulse does not come, it <PickOne sentence label="When the index pulse is missing" :value="w.index" :options="choices.all.follow.reactions" @pick="(code) => set('watch/index', code)" />; when more than
          <NumberField :path="`${root}/watch/lostCounts`" label="Counts that may be lost" hide-label :value="w.lostCounts" whole class="inline short" /> counts are missing there, it
          <PickOne sentence label="When counts are lost" :value="w.lost" :options="choices.all.follow.reactions" @pick="(code) => set('watch/lost', code)" />.&#32;</template></template>
        When the master is too fast for it, it <PickOne sentence label="When the master is too fast" :value="w.tooFast" :options="choices.all.follow.reactions" @pick="(code) => set('watch/tooFast', code)" />;
        when its phase is off by more than <NumberField :path="`${root}/watch/phaseLimit`" label="Limit of the phase" hide-label :value="w.phaseLimit" :unit="unit" class="inline" title="Once it has been locked, besides the gap of the gain; 0 for any" />
        <template v-if="w.phaseLimit > 0">, it <PickOne sentence label="When the phase leaves its limit" :value="w.phase" :options="choices.all.follow.reactions" @pick="(code) => set('watch/phase', code)" />.</template><span v-else class="meaning">&#32;(0: not watched).</span>
      </p>
      <div v-if="encoder" class="row" role="group" aria-label="The encoder that is followed">
        <label class="slot"><span>Signal</span><PickOne label="Signal of the master encoder" :value="f.encoder.signal" :options="choices.all.follow.signals" @pick="(code) => set('encoder/signal', code)" /></label>
        <NumberField :path="`${root}/encoder/countsPerTurn`" label="Counts per turn" :value="f.encoder.countsPerTurn" whole title="Lines × 4 for quadrature, 2^bits for an absolute encoder" />
        <NumberField :path="`${root}/encoder/turns`" label="Encoder turns" :value="f.encoder.turns" whole />
        <NumberField :path="`${root}/encoder/way`" label="are a way of" :value="f.encoder.way" :unit="f.encoder.unit" />
        <label class="slot narrow"><span>Unit</span><TextEntry :value="f.encoder.unit" aria-label="Unit of the master encoder" maxlength="12" @enter="(text) => set('encoder/unit', text.trim())" /></label>
        <NumberField :path="`${root}/encoder/speed`" label="Runs at" :value="f.encoder.speed" :unit="f.encoder.unit + '/s'" title="As it runs usually, and on the bench from its start" />
        <NumberField :path="`${root}/encoder/acceleration`" label="comes up with" :value="f.encoder.acceleration" :unit="f.encoder.unit + '/s²'" />
      </div>
      <div class="row">
        <NumberField :path="`${root}/ratio/masterPitch`" :label="encoder ? 'Master pitch' : `Pitch of ${f.master}`" :value="f.ratio.masterPitch" :unit="masterUnit" title="What belongs to one pitch of the follower" />
        <NumberField :path="`${root}/ratio/followerPitch`" :label="`Pitch of ${axis.name}`" :value="f.ratio.followerPitch" :unit="unit" title="A minus for the other sense" />
        <NumberField :path="`${root}/phaseWindow`" label="Phase window" :value="f.phaseWindow" :unit="unit" title="Within it the follower counts as locked" />
        <NumberField :path="`${root}/gain`" label="Lock gain" :value="f.gain" unit="1/s" title="Gap without feed-forward = speed ÷ gain" />
        <NumberField :path="`${root}/feedForward`" label="Feed-forward" :value="f.feedForward" unit="%" title="Share of the master's speed" />
        <NumberField v-if="encoder" :path="`${root}/accelerationForward`" label="Of acceleration" :value="f.accelerationForward" unit="%" title="Share of its own acceleration that the drive feeds forward as torque" />
        <NumberField :path="`${root}/filter`" label="Master filter" :value="f.filter" unit="ms" title="First-order filter on the master's speed; 0 for none" />
        <NumberField :path="`${root}/prediction`" label="Prediction" :value="f.prediction" unit="ms" title="By how much the place of the master is foreseen" />
        <NumberField :path="`${root}/speed`" label="Highest speed" :value="f.speed" :unit="unit + '/s'" :title="`0 takes that of the axis, ${axis.limits.max.speed} ${unit}/s`" />
        <NumberField :path="`${root}/acceleration`" label="Acceleration" :value="f.acceleration" :unit="unit + '/s²'" :title="`0 takes the highest of the axis, ${axis.limits.max.acceleration} ${unit}/s²`" />
        <NumberField :path="`${root}/deceleration`" label="Deceleration" :value="f.deceleration" :unit="unit + '/s²'" :title="`0 takes the highest of the axis, ${axis.limits.max.deceleration} ${unit}/s²`" />
        <v-checkbox-btn v-if="encoder" class="check" label="Encoder counts backward" density="compact" :model-value="f.encoder.reversed" @update:model-value="(on: boolean) => set('encoder/reversed', on)" />
        <v-checkbox-btn v-if="encoder && f.encoder.signal === 'QUADRATURE'" class="check" label="Index pulse each turn" density="compact" :model-value="f.encoder.index" @update:model-value="(on: boolean) => set('encoder/index', on)" />
      </div>
    </template>
  </div>
</template>

<style scoped>
.sentence { font-size: 15px; line-height: 1.9; margin: 0; }
.inline { display: inline-block; vertical-align: middle; --field-width: 118px; }
.short { --field-width: 62px; }
.meaning { color: var(--pencil); font-size: 13px; }
.row { display: flex; flex-wrap: wrap; gap: 2px 8px; align-items: flex-start; --field-width: 95px; margin-top: 2px; }
.slot { width: 108px; } .slot.narrow { width: 66px; } .slot span { display: block; font-size: 12px; color: var(--pencil); }
.check { flex: none; align-self: end; }
</style>
