<script setup lang="ts">
import { mdiDelete } from '@mdi/js'
import { computed } from 'vue'
import { useChoices } from '../../stores/choices'
import { useMachine } from '../../stores/machine'
import NumberField from '../NumberField.vue'
import PickOne from '../PickOne.vue'
import TextEntry from '../TextEntry.vue'

/** When programs run: a sentence for each task. */
const props = defineProps<{ /** names of the programs in all files */ programs: string[] }>()
const machine = useMachine()
const choices = useChoices()
const tasks = computed(() => machine.draft!.plc.tasks)
const plc = computed(() => machine.draft!.plc)
const bools = computed(() => [...machine.draft!.axes.flatMap((a) => [...a.station.inputs, ...a.station.outputs].map((e) => ({ name: e.tag, type: e.tagType }))), ...plc.value.tags].filter((t) => t.name && t.type === 'BOOL').map((t) => t.name))
const taken = computed(() => new Set(tasks.value.flatMap((t) => t.programs.map((p) => p.toLowerCase()))))
const free = computed(() => props.programs.filter((p) => !taken.value.has(p.toLowerCase())))
const full = computed(() => tasks.value.length >= choices.all.program.mostTasks)

function add() {
  let number = tasks.value.length + 1
  while (tasks.value.some((t) => t.name.toLowerCase() === `task ${number}`)) number++
  machine.edit({ op: 'add', path: '/plc/tasks/-', value: { name: `Task ${number}`, intervalMicros: 10 * tasks.value[0]!.intervalMicros, onTag: '', priority: 10, watchdogMicros: 0, programs: [] } })
}
function start(i: number, tag: string) {
  machine.edit({ op: 'replace', path: `/plc/tasks/${i}/onTag`, value: tag }, { op: 'replace', path: `/plc/tasks/${i}/intervalMicros`, value: tag ? 0 : 10 * tasks.value[0]!.intervalMicros })
}
const run = (i: number, programs: string[]) => machine.set(`/plc/tasks/${i}/programs`, programs)
</script>

<template>
  <section class="tasks" aria-label="Tasks">
    <p class="sub">A task runs its programs one after the other. When several are due, the one with the lowest priority number goes first.</p>
    <div v-for="(task, i) in tasks" :key="i" class="rule">
      <div class="say">
        <TextEntry class="name" :value="task.name" :aria-label="`Task ${i + 1}, name`" @enter="(n) => machine.set(`/plc/tasks/${i}/name`, n)" /> runs
        <PickOne v-if="i > 0" sentence :label="`Task ${i + 1}, when`" :value="task.onTag" :options="[{ code: '', words: 'every' }, ...bools.map((b) => ({ code: b, words: `when ${b} rises` })), ...(task.onTag && !bools.includes(task.onTag) ? [{ code: task.onTag, words: `when ${task.onTag} rises` }] : [])]" @pick="(tag) => start(i, tag)" />
        <template v-else>every</template>
        <NumberField v-if="!task.onTag" :path="`/plc/tasks/${i}/intervalMicros`" :label="`Task ${i + 1}, interval`" hide-label :value="task.intervalMicros" unit="µs" whole class="inline" title="A multiple of the bus cycle" /> with priority
        <NumberField :path="`/plc/tasks/${i}/priority`" :label="`Task ${i + 1}, priority`" hide-label :value="task.priority" whole class="inline short" :title="`0 goes first, ${choices.all.program.lowestPriority} last`" /> and a watchdog of
        <NumberField :path="`/plc/tasks/${i}/watchdogMicros`" :label="`Task ${i + 1}, watchdog`" hide-label :value="task.watchdogMicros" unit="µs" whole class="inline" title="Longest time from its start to its end before the controller stops; 0: it is not watched" />
        <span class="sub">{{ task.watchdogMicros ? '' : '(off)' }}</span>
        <div class="programs">Programs:
          <v-chip v-for="(p, j) in task.programs" :key="p" size="small" closable :close-label="`Take ${p} out of ${task.name}`" @click:close="run(i, task.programs.filter((_, k) => k !== j))">{{ p }}<b v-if="!programs.some((q) => q.toLowerCase() === p.toLowerCase())" class="missing">&nbsp;is in no file</b></v-chip>
          <span v-if="i === 0">{{ task.programs.length ? 'and ' : '' }}{{ free.length ? free.join(', ') : 'none of those' }} <span class="sub">(what no task names)</span></span>
          <PickOne v-if="free.length" sentence :label="`${task.name}, add a program`" :value="''" :options="[{ code: '', words: 'add a program', disabled: true }, ...free.map((p) => ({ code: p, words: p }))]" @pick="(p) => run(i, [...task.programs, p])" />
          <span v-if="i > 0 && !task.programs.length && !free.length" class="sub">none; write another PROGRAM, or take one out of another task.</span>
        </div>
      </div>
      <v-btn v-if="i > 0" :icon="mdiDelete" size="x-small" variant="text" :aria-label="`Remove task ${task.name}`" title="Remove" @click="machine.edit({ op: 'remove', path: `/plc/tasks/${i}` })" />
    </div>
    <v-btn :disabled="full" @click="add">Add a task</v-btn>
    <div class="row">
      <NumberField path="/plc/statementNanos" label="Time of a statement" :value="plc.statementNanos" unit="ns" whole title="Estimate of what the real controller takes; times of tasks and their overrun come from it. 0: no time passes" />
      <NumberField path="/plc/instructionBudget" label="Budget of one cycle" :value="plc.instructionBudget" whole wide unit="statements" title="A task that needs more is stopped: a loop does not end" />
    </div>
  </section>
</template>

<style scoped>
.tasks { overflow: auto; padding: 4px 12px; }
.rule { display: flex; align-items: start; border-bottom: 1px solid var(--hair); margin-bottom: 8px; }
.say { flex: 1; font-size: 15px; line-height: 2.2; }
.name { display: inline-block; width: 130px; vertical-align: middle; }
.inline { display: inline-block; vertical-align: middle; margin: 0 4px; --field-width: 116px; }
.short { --field-width: 58px; }
.programs { display: flex; flex-wrap: wrap; gap: 6px; align-items: center; font-size: 14px; }
.missing { color: var(--stop); }
.row { display: flex; gap: 12px; margin: 12px 0; }
.sub { margin: 0; }
</style>
