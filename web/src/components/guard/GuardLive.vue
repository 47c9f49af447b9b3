<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type Schemas } from '../../api/client'
import { useAxis } from '../../lib/axis'
import { fixed } from '../../lib/numbers'

/** Requests on the bench that runs: open and close their contacts, acknowledge, and what the guards did. */
const { machine, axis, bench } = useAxis()
const guards = computed(() => bench.state!.guards)
const here = computed(() => guards.value.watches.find((w) => w.axis === axis.value.name))
const log = ref<Schemas['Told'][]>([])
const unfolded = ref(false)
/* the log is asked for when it has changed and is looked at */
watch([() => guards.value.changes, unfolded], async () => {
  if (unfolded.value) log.value = (await machine.guarded(() => api.guardLog(machine.id))) ?? []
}, { immediate: true })
const ask = (name: string, first: boolean, second: boolean) => bench.taken(() => api.askGuards(machine.id, name, first, second))
</script>

<template>
  <section aria-label="Requests on the bench">
    <h2>On the bench</h2>
    <div class="line">
      <span v-for="r in guards.requests" :key="r.name" class="request" role="group" :aria-label="`${r.name} on the bench`">
        <b>{{ r.name }}</b> <span class="sub">{{ r.firstOpen && r.secondOpen ? 'open: it asks' : r.firstOpen || r.secondOpen ? 'one channel open: it asks' : 'closed' }}</span>
        <v-btn v-if="r.firstOpen || r.secondOpen" size="small" :aria-label="`Close ${r.name}`" @click="ask(r.name, false, false)">Close</v-btn>
        <template v-else><v-btn size="small" :aria-label="`Open ${r.name}`" title="Both channels open: the guards are asked" @click="ask(r.name, true, true)">Open</v-btn>
          <v-btn size="small" variant="text" :aria-label="`Open one channel of ${r.name}`" title="As where a contact sticks: one is enough to ask, and it is a fault when it lasts" @click="ask(r.name, true, false)">One channel</v-btn></template>
      </span>
      <v-btn size="small" title="Its edge counts, once nothing asks any more" @click="bench.taken(() => api.acknowledgeGuards(machine.id))">Acknowledge</v-btn>
    </div>
    <p v-if="here" class="now" role="status" data-testid="guard-now">{{ axis.name }}: <b :class="{ stop: here.phase === 'TRIPPED' }">{{ here.words }}</b></p>
    <details @toggle="unfolded = ($event.target as HTMLDetailsElement).open">
      <summary>What the guards did, newest first</summary>
      <ol v-if="log.length" class="log"><li v-for="(t, i) in log" :key="`${t.time} ${i}`"><span class="mono">{{ fixed(t.time, 3) }} s</span> {{ t.axis }}: {{ t.words }}</li></ol>
      <p v-else class="sub">Nothing yet.</p>
    </details>
  </section>
</template>

<style scoped>
h2 { font-size: 15px; margin: 12px 0 2px; }
.line { display: flex; flex-wrap: wrap; gap: 6px 18px; align-items: center; }
.request { display: inline-flex; gap: 6px; align-items: center; } .request .sub { margin: 0; }
.now { margin: 4px 0; font-size: 14px; } .stop { color: var(--stop); }
summary { cursor: pointer; font-size: 13px; color: var(--pencil); }
.log { list-style: none; padding: 0; margin: 2px 0; font-size: 12.5px; max-height: 160px; overflow: auto; } .mono { color: var(--pencil); }
</style>
