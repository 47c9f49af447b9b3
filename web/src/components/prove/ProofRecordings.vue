<script setup lang="ts">
import { mdiDelete } from '@mdi/js'
import { onBeforeUnmount, onMounted } from 'vue'
import { fixed, grouped } from '../../lib/numbers'
import { useRecordings } from '../../stores/recordings'
import { useSentences } from '../../stores/sentences'
import BringRecording from '../recordings/BringRecording.vue'
import RecordingComparison from '../recordings/RecordingComparison.vue'
import RecordingLearning from '../recordings/RecordingLearning.vue'
import TextEntry from '../TextEntry.vue'

/** Recordings of the real machine: brought in, and held against the bench. */
const recordings = useRecordings()
const sentences = useSentences()
onMounted(() => sentences.looked++)
onBeforeUnmount(() => sentences.looked--)
</script>

<template>
  <section aria-label="Recordings">
    <BringRecording />
    <p v-if="!recordings.all.length" class="empty">No recording has been brought in. One of the real machine shows here where the bench is different, and lets it learn.</p>
    <template v-else>
      <ul class="list" aria-label="Recordings of the machine">
        <li v-for="r in recordings.all" :key="r.id" :class="{ on: recordings.shown?.id === r.id }">
          <button type="button" class="pick" :aria-pressed="recordings.shown?.id === r.id" @click="recordings.chosen = r.id"><b>{{ r.name }}</b> <span>{{ grouped(r.samples) }} samples from {{ fixed(r.begins, 3) }} to {{ fixed(r.ends, 3) }} s, {{ r.signals.map((s) => s.name).join(', ') }}</span></button>
          <v-btn :icon="mdiDelete" size="x-small" variant="text" :aria-label="`Forget ${r.name}`" @click="recordings.forget(r.id)" />
        </li>
      </ul>
      <template v-if="recordings.shown">
        <p class="sub about"><TextEntry class="name" :value="recordings.shown.name" maxlength="200" aria-label="Name of this recording" @enter="recordings.rename(recordings.shown!.id, $event.trim())" /> from {{ recordings.shown.fileName }}<template v-for="r in recordings.shown.remarks" :key="r">. {{ r }}</template></p>
        <RecordingComparison :recording="recordings.shown" />
        <RecordingLearning :recording="recordings.shown" />
      </template>
    </template>
  </section>
</template>

<style scoped>
.list { list-style: none; margin: 8px 0; padding: 0; max-height: 150px; overflow: auto; }
.list li { display: flex; align-items: center; border: 1px solid var(--hair); border-radius: 4px; margin-bottom: 3px; background: var(--sheet); }
.list li.on { border-color: var(--cmd); box-shadow: inset 3px 0 var(--cmd); }
.pick { flex: 1; border: 0; background: none; font: inherit; font-size: 13px; color: var(--ink); text-align: left; padding: 3px 8px; cursor: pointer; overflow-wrap: anywhere; }
.pick span { color: var(--pencil); }
.about { display: flex; gap: 8px; align-items: center; } .name { flex: none; width: 260px; }
</style>
