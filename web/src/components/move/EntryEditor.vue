<script setup lang="ts">
import { computed } from 'vue'
import { useAxis } from '../../lib/axis'
import { useChoices } from '../../stores/choices'
import { useMoves } from '../../stores/moves'
import NumberField from '../NumberField.vue'
import PickOne from '../PickOne.vue'
import TextEntry from '../TextEntry.vue'
import CueSlots from './CueSlots.vue'

/** The chosen entry, slot by slot. Which slots a kind has is said by the core. */
const props = defineProps<{ number: number }>()
const { machine, axis, unit } = useAxis()
const moves = useMoves()
const choices = useChoices()
const entry = computed(() => moves.list!.entries[props.number])
const path = computed(() => `${moves.root}/entries/${props.number}`)
const kind = computed(() => choices.all.moves.kinds.find((k) => k.code === entry.value.kind))
const has = (slot: string) => kind.value?.slots.includes(slot) ?? false
const set = (slot: string, value: unknown) => machine.set(`${path.value}/${slot}`, value)
const others = computed(() => moves.list!.entries.map((e, i) => ({ code: i, words: e.name ? `${i} ${e.name}` : `entry ${i}` })))
const outputs = computed(() => Array.from({ length: choices.all.moves.outputs }, (_, i) => ({ code: i + 1, words: `list output ${i + 1}` })))
const speedWords = computed(() => (entry.value.kind === 'CHANGE_SPEED' ? 'Faster by' : 'Speed'))
</script>

<template>
  <div class="editor" role="group" :aria-label="`Entry ${number}`">
    <p class="sentence">
      <PickOne sentence label="What the entry does" :value="entry.kind" :options="choices.all.moves.kinds" @pick="(code) => set('kind', code)" />
      <template v-if="has('output')">
        <PickOne sentence label="Output" :value="entry.output" :options="outputs" @pick="(code) => set('output', Number(code))" />
        <PickOne sentence label="Level" :value="entry.on ? 'on' : 'off'" :options="['on', 'off']" @pick="(code) => set('on', code === 'on')" />
      </template>
      <template v-if="has('position')"><NumberField :path="`${path}/position`" label="Position" hide-label :value="entry.position" :unit="unit" class="inline" />
        <PickOne v-if="axis.kind === 'ENDLESS'" sentence label="Way" :value="entry.way" :options="choices.all.moves.ways" @pick="(code) => set('way', code)" /></template>
      <template v-if="entry.kind === 'GO_BY'"><NumberField :path="`${path}/distance`" label="Distance" hide-label :value="entry.distance" :unit="unit" class="inline" /></template>
      <template v-if="entry.kind === 'TO_MARK'"> at <CueSlots :path="`${path}/cue`" :cue="entry.cue" label="Mark" probe />, between
        <NumberField :path="`${path}/windowFrom`" label="Window from" hide-label :value="entry.windowFrom" :unit="unit" class="inline" /> and
        <NumberField :path="`${path}/windowTo`" label="Window to" hide-label :value="entry.windowTo" :unit="unit" class="inline" /> of way, stop
        <NumberField :path="`${path}/distance`" label="Way after the mark" hide-label :value="entry.distance" :unit="unit" class="inline" /> after it; without one
        <PickOne sentence label="Without a mark" :value="entry.entry" :options="[{ code: -1, words: 'stop the list' }, ...others]" @pick="(code) => set('entry', Number(code))" /></template>
      <template v-if="entry.kind === 'REPEAT'">
        <PickOne sentence label="Repeat from" :value="entry.entry" :options="others.slice(0, number)" @pick="(code) => set('entry', Number(code))" /> until done
        <NumberField :path="`${path}/times`" label="Times" hide-label :value="entry.times" unit="times" whole class="inline" /></template>
      <template v-if="entry.kind === 'WAIT'"><NumberField :path="`${path}/rest`" label="Time" hide-label :value="entry.rest" unit="s" class="inline" /></template>
      <template v-if="has('cue') && entry.kind !== 'TO_MARK'">{{ entry.kind === 'AWAIT' ? '' : ' until ' }}<CueSlots :path="`${path}/cue`" :cue="entry.cue" label="Until" /></template>;
      <template v-if="entry.kind !== 'WAIT' && entry.end !== 'PASS'">rest <NumberField :path="`${path}/rest`" label="Rest" hide-label :value="entry.rest" unit="s" class="inline short" title="Begins when the axis is in position" />, </template>then
      <PickOne sentence label="How the entry ends" :value="entry.end" :options="choices.all.moves.ends" @pick="(code) => set('end', code)" />
      <template v-if="entry.end === 'GO_ON'"><PickOne sentence label="Goes on to" :value="entry.next" :options="others" @pick="(code) => set('next', Number(code))" /></template>
      <template v-if="entry.end === 'AWAIT_CUE'">: <CueSlots :path="`${path}/awaits`" :cue="entry.awaits" label="Awaited" /></template>.
    </p>
    <div class="row">
      <label class="name"><span>Name</span><TextEntry :value="entry.name" aria-label="Name of the entry" maxlength="80" @enter="(text) => set('name', text.trim())" /></label>
      <NumberField v-if="has('speed')" :path="`${path}/speed`" :label="speedWords" :value="entry.speed" :unit="unit + '/s'" :title="entry.kind === 'RUN' ? 'With the sign of the direction' : entry.kind === 'CHANGE_SPEED' ? 'Negative for slower' : `0 takes the default, ${axis.limits.normal.speed} ${unit}/s`" />
      <template v-if="has('acceleration')">
        <NumberField :path="`${path}/acceleration`" label="Acceleration" :value="entry.acceleration" :unit="unit + '/s²'" :title="`0 takes the default, ${axis.limits.normal.acceleration} ${unit}/s²`" />
        <NumberField :path="`${path}/deceleration`" label="Deceleration" :value="entry.deceleration" :unit="unit + '/s²'" :title="`0 takes the default, ${axis.limits.normal.deceleration} ${unit}/s²`" />
        <NumberField :path="`${path}/jerk`" label="Jerk" :value="entry.jerk" :unit="unit + '/s³'" :title="`0 takes the default, ${axis.limits.normal.jerk} ${unit}/s³`" />
      </template>
    </div>
    <p v-if="has('acceleration')" class="hint">0 takes the axis' default. A speed acts at once while the list runs; everything else when the entry is begun next.</p>
  </div>
</template>

<style scoped>
.editor { padding: 4px 10px 8px; border-left: 3px solid var(--cmd); background: var(--sheet); }
.sentence { font-size: 15px; line-height: 2; margin: 0 0 4px; }
.inline { display: inline-block; vertical-align: middle; --field-width: 118px; }
.short { --field-width: 84px; }
.row { display: flex; flex-wrap: wrap; gap: 4px 12px; align-items: flex-start; --field-width: 114px; }
.name { width: 140px; } .name span { display: block; font-size: 12px; color: var(--pencil); }
.hint { color: var(--pencil); font-size: 12px; margin: 4px 0 0; }
</style>
