<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { computed, onMounted, ref } from 'vue'
import { useRoute } from 'vue-router'
import AxisRail from './components/AxisRail.vue'
import ConsequencePane from './components/ConsequencePane.vue'
import Dock from './components/Dock.vue'
import Notices from './components/Notices.vue'
import SearchPalette from './components/SearchPalette.vue'
import StageRibbon from './components/StageRibbon.vue'
import TopBar from './components/TopBar.vue'
import UnreadableMachine from './components/UnreadableMachine.vue'
import { useBench } from './stores/bench'
import { useHand } from './stores/hand'
import { useMachine } from './stores/machine'

const machine = useMachine()
const bench = useBench()
const hand = useHand()
const route = useRoute()
const searching = ref(false)
const theme = ref(localStorage.getItem('theme') === 'dark' ? 'dark' : 'paper')
const ready = computed(() => machine.draft !== null && machine.axis !== null)

function switchTheme() {
  theme.value = theme.value === 'dark' ? 'paper' : 'dark'
  localStorage.setItem('theme', theme.value)
}

function typing(target: EventTarget | null) {
  return target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
}

useEventListener(window, 'keydown', (event) => {
  const command = event.ctrlKey || event.metaKey
  if (event.key === '/' && !command && !typing(event.target)) {
    event.preventDefault()
    searching.value = true
  } else if (command && event.key.toLowerCase() === 'z' && !typing(event.target)) {
    event.preventDefault()
    void (event.shiftKey ? machine.redo() : machine.undo())
  } else if (command && event.key.toLowerCase() === 'y' && !typing(event.target)) {
    event.preventDefault()
    void machine.redo()
  }
})
useEventListener(window, 'beforeunload', (event) => {
  if (machine.dirty) {
    void machine.flush()
    event.preventDefault()
  }
})

onMounted(async () => {
  bench.connect()
  await machine.load()
})
</script>

<template>
  <v-app :theme="theme">
    <div class="frame" :class="{ byhand: hand.open || bench.deviceOpen }">
      <TopBar :theme="theme" @search="searching = true" @theme="switchTheme" />
      <StageRibbon />
      <div v-if="ready" class="middle">
        <AxisRail />
        <main class="pane" tabindex="-1" aria-label="Stage">
          <Notices />
          <div class="stage"><router-view /></div>
        </main>
        <ConsequencePane :stage="String(route.name ?? '')" />
      </div>
      <div v-else class="stage">
        <Notices />
        <UnreadableMachine v-if="machine.unreadable" :key="machine.unreadable.id" />
        <p v-else-if="!machine.problem" class="empty">Loading the machine…</p>
      </div>
      <Dock v-if="ready" />
    </div>
    <SearchPalette v-model="searching" @theme="switchTheme" />
  </v-app>
</template>
