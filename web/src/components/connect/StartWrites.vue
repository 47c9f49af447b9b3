<script setup lang="ts">
import PickOne from '../PickOne.vue'
import { useChoices } from '../../stores/choices'
import { mdiArrowDown, mdiArrowUp, mdiDelete } from '@mdi/js'
import { computed, ref, watch } from 'vue'
import { api, type StartWrite } from '../../api/client'
import { useAxis } from '../../lib/axis'
import NumberField from '../NumberField.vue'
import TextEntry from '../TextEntry.vue'

/** What is written while the station starts: derived writes, and those by hand, which can be ordered and switched off. */
const { machine, axis, at } = useAxis()
const derived = ref<StartWrite[]>([])
const fresh = ref({ object: '6072', subIndex: '0', bits: 16, value: '' })
const refusal = ref('')
const choices = useChoices()
const byHand = computed(() => axis.value.station.startWrites)
const path = (i: number | string) => `${at.value}/station/startWrites/${i}`
watch([() => machine.answer, () => machine.axisIndex], async () => {
  derived.value = (await machine.asked((document, number) => api.startUp(document, number)))?.derived ?? derived.value
}, { immediate: true })

const hex = (n: number, digits: number) => n.toString(16).toUpperCase().padStart(digits, '0')
const place = (w: StartWrite) => `${hex(w.object, 4)}h:${hex(w.subIndex, 2)}`
const shown = (w: StartWrite) => (w.object < 0x2000 ? hex(w.value, w.bits / 4) + 'h' : String(w.value))

function add() {
  const object = parseInt(fresh.value.object, 16)
  const subIndex = parseInt(fresh.value.subIndex, 16)
  const text = fresh.value.value.trim()
  const value = /^0x[0-9a-f]+$/i.test(text) ? parseInt(text, 16) : /^-?\d+$/.test(text) ? Number(text) : NaN
  refusal.value = !/^[0-9a-f]{1,4}$/i.test(fresh.value.object) || !object ? `Index ${fresh.value.object} is refused. Allowed: 1 to FFFF, hexadecimal.`
    : !(subIndex >= 0 && subIndex <= 254) ? `Sub-index ${fresh.value.subIndex} is refused. Allowed: 0 to FE, hexadecimal.`
      : Number.isNaN(value) ? `Value ${text || 'nothing'} is refused. Allowed: a whole number, decimal or hexadecimal with 0x.`
        : value < -(2 ** (fresh.value.bits - 1)) || value >= 2 ** fresh.value.bits ? `Value ${text} is refused. Allowed: what fits into ${fresh.value.bits} bits.` : ''
  if (refusal.value) return
  machine.edit({ op: 'add', path: path('-'), value: { object, subIndex, bits: fresh.value.bits, value, transition: 'PREOP_TO_SAFEOP', comment: '', enabled: true } })
  fresh.value.value = ''
}

function move(i: number, by: number) {
  machine.edit({ op: 'remove', path: path(i) }, { op: 'add', path: path(i + by), value: byHand.value[i] })
}
</script>

<template>
  <section aria-label="Start-up writes">
    <h2>Added by hand for {{ axis.name }}</h2>
    <v-table v-if="byHand.length" class="plain" data-testid="by-hand">
      <thead><tr><th>Write</th><th>Object</th><th>Bits</th><th>Value</th><th>When</th><th>Comment</th><th><span class="visually-hidden">Order</span></th></tr></thead>
      <tbody>
        <tr v-for="(w, i) in byHand" :key="i" :class="{ off: !w.enabled }">
          <td><input type="checkbox" :checked="w.enabled" :aria-label="`Write ${place(w)}`" @change="machine.set(path(i) + '/enabled', ($event.target as HTMLInputElement).checked)" /></td>
          <td class="mono">{{ place(w) }}</td><td class="mono">{{ w.bits }}</td>
          <td><NumberField class="value" :path="path(i) + '/value'" :label="`Value of ${place(w)}`" :value="w.value" whole hide-label /></td>
          <td><PickOne many :value="w.transition" :label="`When ${place(w)} is written`" :options="choices.all.transitions" @pick="(code) => machine.set(path(i) + '/transition', code)" /></td>
          <td><TextEntry many class="comment" :value="w.comment" :aria-label="`Comment of ${place(w)}`" @enter="(t) => machine.set(path(i) + '/comment', t)" /></td>
          <td class="tools">
            <v-btn :icon="mdiArrowUp" variant="text" size="x-small" density="compact" :disabled="i === 0" :aria-label="`Write ${place(w)} earlier`" @click="move(i, -1)" />
            <v-btn :icon="mdiArrowDown" variant="text" size="x-small" density="compact" :disabled="i === byHand.length - 1" :aria-label="`Write ${place(w)} later`" @click="move(i, 1)" />
            <v-btn :icon="mdiDelete" variant="text" size="x-small" density="compact" :aria-label="`Remove the write of ${place(w)}`" @click="machine.edit({ op: 'remove', path: path(i) })" />
          </td>
        </tr>
      </tbody>
    </v-table>
    <p v-else class="pencil">None yet. Add one here, or change an object under Devices.</p>
    <form class="add" @submit.prevent="add">
      <span>Index <v-text-field v-model="fresh.object" class="snug number short" aria-label="Index, hexadecimal" suffix="h" /></span>
      <span>Sub-index <v-text-field v-model="fresh.subIndex" class="snug number shorter" aria-label="Sub-index, hexadecimal" suffix="h" /></span>
      <span>Bits <PickOne label="Bits" :value="fresh.bits" :options="[8, 16, 32]" @pick="(b) => (fresh.bits = Number(b))" /></span>
      <span>Value <v-text-field v-model="fresh.value" class="snug number typed" aria-label="Value to write" /></span>
      <v-btn type="submit" size="small">Add a write</v-btn>
      <span v-if="refusal" class="fault-text" role="alert">{{ refusal }}</span>
    </form>
    <h2>From the configuration · {{ derived.length }}</h2>
    <p v-if="derived.length === 0" class="pencil">On this bus nothing is written object by object when the station starts.</p>
    <v-table v-else class="plain">
      <thead><tr><th>Order</th><th>Object</th><th>Bits</th><th>Value</th><th>When</th><th>What for</th></tr></thead>
      <tbody><tr v-for="(w, i) in derived" :key="i"><td class="mono">{{ i + 1 }}</td><td class="mono">{{ place(w) }}</td><td class="mono">{{ w.bits }}</td><td class="mono">{{ shown(w) }}</td><td class="when">{{ choices.words(choices.all.transitions, w.transition) }}</td><td>{{ w.comment }}</td></tr></tbody>
    </v-table>
  </section>
</template>

<style scoped>
.when { white-space: nowrap; }
.add > span { display: inline-flex; gap: 5px; align-items: center; }
td, th { padding: 1px 5px !important; } .off { opacity: 0.7; text-decoration: line-through; text-decoration-color: var(--pencil); }
.value { width: 100px; } .comment { width: 150px; } .short { width: 56px; } .shorter { width: 36px; } .tools { white-space: nowrap; text-align: right; }
.add { display: flex; gap: 10px; align-items: center; margin: 6px 0 12px; font-size: 13px; } .pencil { color: var(--pencil); font-size: 13px; }
</style>
