<script setup lang="ts">
import ProblemNote from './ProblemNote.vue'
import { useMachine } from '../stores/machine'

const machine = useMachine()
const again = () => void (machine.draft ? machine.flush() : machine.load(machine.id))
</script>

<template>
  <div v-if="machine.conflict !== null" class="notice" role="alert">
    <b>Another page saved revision {{ machine.conflict }} meanwhile.</b>
    Your change is still here, based on revision {{ machine.revision }}. Nothing is lost either way: both stay in the revisions.
    <span class="actions">
      <v-btn @click="machine.keepMine()">Keep mine</v-btn>
      <v-btn @click="machine.takeTheirs()">Take theirs</v-btn>
    </span>
  </div>
  <div v-if="machine.unknown.length" class="notice" role="status" data-testid="unknown-entries">
    <b>The stored document has {{ machine.unknown.length === 1 ? 'an entry' : 'entries' }} that this Rueda does not know:</b> <span class="mono">{{ machine.unknown.join(', ') }}</span>.
    The next change is saved without {{ machine.unknown.length === 1 ? 'it' : 'them' }}; revision {{ machine.revision }} keeps {{ machine.unknown.length === 1 ? 'it' : 'them' }}.
    <span class="actions"><v-btn @click="machine.unknown = []">Close</v-btn></span>
  </div>
  <ProblemNote v-if="machine.problem" :problem="machine.problem" :again="again" @close="machine.problem = null" />
</template>

<style scoped>
.notice { border-left: 4px solid var(--stop); background: var(--stop-wash); padding: 8px 14px; }
.actions { display: inline-flex; gap: 8px; margin-left: 8px; }
</style>
