<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../api/client'
import { useChoices } from '../../stores/choices'
import { useMachine } from '../../stores/machine'
import { placeOf } from '../../router'
import PickOne from '../PickOne.vue'

/** Which request asks for what on which axis. */
const machine = useMachine()
const choices = useChoices()
const requests = computed(() => machine.draft!.safetyRequests)
const axes = computed(() => machine.draft!.axes)
const asked = (axis: Schemas['Axis'], request: string) => axis.guard.asks.flatMap((a, i) => (a.request === request ? [{ ...a, i }] : []))
const options = computed(() => [{ code: '', words: 'nothing' }, ...choices.all.guard.functions.map((f) => ({ code: f.code, words: f.category < 0 ? f.words : `${f.words} (category ${f.category})` }))])
/** Another function, more than one or none: one change. */
function choose(index: number, request: string, at: number | null, code: string) {
  const path = `/axes/${index}/guard/asks`
  if (at === null) {
    if (code) machine.edit({ op: 'add', path: `${path}/-`, value: { request, function: code } })
  } else machine.edit(code ? { op: 'replace', path: `${path}/${at}/function`, value: code } : { op: 'remove', path: `${path}/${at}` })
}
const left = (axis: Schemas['Axis'], request: string) => options.value.filter((o) => !asked(axis, request).some((a) => a.function === o.code)).map((o) => (o.code ? o : { ...o, words: 'and …' }))
</script>

<template>
  <section v-if="requests.length" aria-label="Who asks whom for what">
    <h2>Who asks whom for what</h2>
    <v-table class="plain">
      <thead><tr><th>Axis</th><th v-for="r in requests" :key="r.name">{{ r.name }}</th></tr></thead>
      <tbody>
        <tr v-for="(a, i) in axes" :key="a.name" :class="{ on: i === machine.axisIndex }">
          <th scope="row"><router-link class="link" :to="placeOf('guard', a.name)">{{ a.name }}</router-link></th>
          <td v-for="r in requests" :key="r.name">
            <template v-if="a.guard.fitted">
              <div v-for="one in asked(a, r.name)" :key="one.function"><PickOne many :label="`${r.name} asks ${a.name} for`" :value="one.function" :options="options.filter((o) => o.code === one.function || !asked(a, r.name).some((x) => x.function === o.code))" @pick="(code) => choose(i, r.name, one.i, code)" /></div>
              <PickOne v-if="!asked(a, r.name).length" many :label="`${r.name} asks ${a.name} for`" value="" :options="options" @pick="(code) => choose(i, r.name, null, code)" />
              <PickOne v-else-if="i === machine.axisIndex" many :label="`${r.name} also asks ${a.name} for`" value="" :options="left(a, r.name)" @pick="(code) => choose(i, r.name, null, code)" />
            </template>
            <span v-else class="sub">no guard</span>
          </td>
        </tr>
      </tbody>
    </v-table>
  </section>
</template>

<style scoped>
h2 { font-size: 15px; margin: 12px 0 2px; }
tr.on th, tr.on td { background: var(--cmd-wash); }
td select { max-width: 240px; }
a.link { color: var(--cmd); }
</style>
