<script setup lang="ts">
import { mdiDelete } from '@mdi/js'
import { computed } from 'vue'
import { useAxis } from '../../lib/axis'
import { useChoices } from '../../stores/choices'
import { useMoves } from '../../stores/moves'
import NumberField from '../NumberField.vue'
import PickOne from '../PickOne.vue'
import CueSlots from './CueSlots.vue'

/** What starts the list, what holds while it runs, and where its outputs are on: a sentence each. */
const props = defineProps<{ what: 'starters' | 'exceptions' | 'zones' }>()
const { machine, axis, unit, live } = useAxis()
const moves = useMoves()
const choices = useChoices()
const list = computed(() => moves.list!)
const others = computed(() => list.value.entries.map((e, i) => ({ code: i, words: e.name ? `${i} ${e.name}` : `entry ${i}` })))
const set = (path: string, value: unknown) => machine.set(`${moves.root}/${path}`, value)
const remove = (i: number) => machine.edit({ op: 'remove', path: `${moves.root}/${props.what}/${i}` })
const last = computed(() => choices.all.moves.mostEntries - 1)
const terminals = (zone: number) => axis.value.wiring.terminals.filter((t) => t.function === `ZONE_${zone + 1}`).map((t) => t.name).join(', ')
const full = computed(() => list.value[props.what].length >= (props.what === 'zones' ? choices.all.moves.mostZones : choices.all.moves.mostRules))
</script>

<template>
  <template v-if="what === 'starters'">
    <p class="say">At the first start after power-up it runs
      <PickOne sentence label="Entry of the first start" :value="list.firstEntry" :options="[{ code: -1, words: 'what is asked for' }, ...others]" @pick="(code) => set('firstEntry', Number(code))" />. At the first enable it
      <PickOne sentence label="At the first enable" :value="list.onFirstEnable ? 'starts' : 'waits'" :options="[{ code: 'waits', words: 'waits for a starter' }, { code: 'starts', words: 'starts by itself' }]" @pick="(code) => set('onFirstEnable', code === 'starts')" />.</p>
    <p v-if="!list.starters.length" class="empty">No starter yet. Without one the list is started by hand, or over the bus.</p>
    <div v-for="(starter, i) in list.starters" :key="i" class="rule">
      <p class="say">
        <PickOne sentence :label="`Starter ${i + 1}, by`" :value="starter.by" :options="choices.all.moves.starters" @pick="(code) => set(`starters/${i}/by`, code)" />:
        <template v-if="starter.by === 'LEVEL'">when <CueSlots :path="`${moves.root}/starters/${i}/cue`" :cue="starter.cue" :label="`Starter ${i + 1}`" level />, on starts
          <PickOne sentence :label="`Starter ${i + 1}, entry`" :value="starter.entry" :options="others" @pick="(code) => set(`starters/${i}/entry`, Number(code))" /> and off starts
          <PickOne sentence :label="`Starter ${i + 1}, other entry`" :value="starter.otherEntry" :options="others" @pick="(code) => set(`starters/${i}/otherEntry`, Number(code))" />.</template>
        <template v-else>when <CueSlots :path="`${moves.root}/starters/${i}/cue`" :cue="starter.cue" :label="`Starter ${i + 1}`" />, start
          <PickOne v-if="starter.by === 'EDGE'" sentence :label="`Starter ${i + 1}, entry`" :value="starter.entry" :options="others" @pick="(code) => set(`starters/${i}/entry`, Number(code))" /><b v-else>the entry that the selector inputs say</b>.</template>
      </p>
      <v-btn :icon="mdiDelete" size="x-small" variant="text" :aria-label="`Remove starter ${i + 1}`" title="Remove" @click="remove(i)" />
    </div>
    <v-btn :disabled="full || !list.entries.length" @click="moves.edit({ edit: 'ADD_STARTER' })">Add a starter</v-btn>
  </template>
  <template v-else-if="what === 'exceptions'">
    <p v-if="!list.exceptions.length" class="empty">No exception. One holds while the list runs: on a cue it starts another entry, changes the speed, turns round, stops or goes on.</p>
    <div v-for="(rule, i) in list.exceptions" :key="i" class="rule">
      <p class="say">When <CueSlots :path="`${moves.root}/exceptions/${i}/cue`" :cue="rule.cue" :label="`Exception ${i + 1}`" />,
        <PickOne sentence :label="`Exception ${i + 1}, what it does`" :value="rule.does" :options="choices.all.moves.exceptions" @pick="(code) => set(`exceptions/${i}/does`, code)" />
        <PickOne v-if="rule.does === 'START'" sentence :label="`Exception ${i + 1}, entry`" :value="rule.entry" :options="others" @pick="(code) => set(`exceptions/${i}/entry`, Number(code))" />
        <NumberField v-if="rule.does === 'CHANGE_SPEED'" :path="`${moves.root}/exceptions/${i}/speed`" :label="`Exception ${i + 1}, speed`" hide-label :value="rule.speed" :unit="unit + '/s'" class="inline" />; holds
        <PickOne sentence :label="`Exception ${i + 1}, where`" :value="rule.from === 0 && rule.to === last ? 'all' : 'some'" :options="[{ code: 'all', words: 'in every entry' }, { code: 'some', words: 'from entry to entry' }]" @pick="(code) => { set(`exceptions/${i}/to`, code === 'all' ? last : Math.max(rule.from, list.entries.length - 1)); if (code === 'all') set(`exceptions/${i}/from`, 0) }" />
        <template v-if="rule.from !== 0 || rule.to !== last">
          <NumberField :path="`${moves.root}/exceptions/${i}/from`" :label="`Exception ${i + 1}, from entry`" hide-label :value="rule.from" whole class="inline short" /> to
          <NumberField :path="`${moves.root}/exceptions/${i}/to`" :label="`Exception ${i + 1}, to entry`" hide-label :value="rule.to" whole class="inline short" /></template>.</p>
      <v-btn :icon="mdiDelete" size="x-small" variant="text" :aria-label="`Remove exception ${i + 1}`" title="Remove" @click="remove(i)" />
    </div>
    <v-btn :disabled="full" @click="moves.edit({ edit: 'ADD_EXCEPTION' })">Add an exception</v-btn>
  </template>
  <template v-else>
    <p v-if="!list.zones.length" class="empty">No zone. In a zone an output is on: give a terminal the function in Wire.</p>
    <div v-for="(zone, i) in list.zones" :key="i" class="rule">
      <p class="say"><b :class="{ on: ((live?.moves.zones ?? 0) >> i) & 1 }">Zone {{ i + 1 }}</b> is on from
        <NumberField :path="`${moves.root}/zones/${i}/from`" :label="`Zone ${i + 1}, from`" hide-label :value="zone.from" :unit="unit" class="inline" /> to
        <NumberField :path="`${moves.root}/zones/${i}/to`" :label="`Zone ${i + 1}, to`" hide-label :value="zone.to" :unit="unit" class="inline" />, goes off
        <NumberField :path="`${moves.root}/zones/${i}/hysteresis`" :label="`Zone ${i + 1}, hysteresis`" hide-label :value="zone.hysteresis" :unit="unit" class="inline" title="Hysteresis" /> beyond an end, entered
        <PickOne sentence :label="`Zone ${i + 1}, direction`" :value="zone.passing" :options="choices.all.moves.passings" @pick="(code) => set(`zones/${i}/passing`, code)" />,
        <PickOne sentence :label="`Zone ${i + 1}, reference`" :value="zone.onlyReferenced ? 'only' : 'always'" :options="[{ code: 'only', words: 'only with a reference' }, { code: 'always', words: 'with or without a reference' }]" @pick="(code) => set(`zones/${i}/onlyReferenced`, code === 'only')" />.
        <span class="sub">{{ terminals(i) ? `Output ${terminals(i)}.` : 'No output shows it: give one the function in Wire.' }}</span></p>
      <v-btn :icon="mdiDelete" size="x-small" variant="text" :aria-label="`Remove zone ${i + 1}`" title="Remove" @click="remove(i)" />
    </div>
    <v-btn :disabled="full" @click="moves.edit({ edit: 'ADD_ZONE' })">Add a zone</v-btn>
  </template>
</template>

<style scoped>
.rule { display: flex; align-items: center; border-bottom: 1px solid var(--hair); margin-bottom: 6px; }
.say { flex: 1; font-size: 15px; line-height: 2; margin: 0 0 6px; }
.inline { display: inline-block; vertical-align: middle; --field-width: 110px; }
.short { --field-width: 62px; }
.on { color: var(--act); text-decoration: underline; }
.sub { font-size: 13px; }
</style>
