<script setup lang="ts">
import { computed } from 'vue'
import { useAxis } from '../lib/axis'
import { fixed } from '../lib/numbers'

/** Allowed following error over speed, with the one the axis has now. */
const { axis, unit, live } = useAxis()
const s = computed(() => axis.value.supervision)
const highest = computed(() => axis.value.limits.max.speed)
const LEFT = 8
const RIGHT = 330
const x = (speed: number) => LEFT + ((RIGHT - LEFT) * Math.min(highest.value, Math.abs(speed))) / highest.value
const y = (error: number) => 62 - 48 * Math.min(1.1, Math.abs(error) / s.value.followingErrorAtSpeed)
</script>

<template>
  <svg viewBox="0 0 340 82" class="drawing" role="img" :aria-label="`Allowed following error: ${s.followingError} ${unit} up to ${s.followingFrom} ${unit}/s, ${s.followingErrorAtSpeed} ${unit} at ${highest} ${unit}/s`">
    <path :d="`M${LEFT} 62H${RIGHT}M${LEFT} 62V6`" stroke="var(--pencil)" fill="none" />
    <path :d="`M${LEFT} ${y(s.followingError)}H${x(s.followingFrom)}L${RIGHT} ${y(s.followingErrorAtSpeed)}`" stroke="var(--stop)" stroke-width="1.6" fill="none" />
    <text :x="LEFT + 4" :y="y(s.followingError) - 4" class="figure">{{ s.followingError }} {{ unit }}</text>
    <text v-if="s.followingErrorAtSpeed !== s.followingError" :x="RIGHT" :y="y(s.followingErrorAtSpeed) - 4" text-anchor="end" class="figure">{{ s.followingErrorAtSpeed }} {{ unit }}</text>
    <text :x="LEFT" y="76">0</text><text :x="RIGHT" y="76" text-anchor="end">{{ highest }} {{ unit }}/s</text>
    <text v-if="s.followingErrorAtSpeed !== s.followingError && s.followingFrom > 0.12 * highest" :x="x(s.followingFrom)" y="76" text-anchor="middle">{{ s.followingFrom }}</text>
    <g v-if="live">
      <circle :cx="x(live.speed)" :cy="y(live.followingError)" r="4" fill="var(--act)" />
      <text x="170" y="76" text-anchor="middle">now {{ fixed(live.followingError, 3) }} of {{ fixed(live.allowedFollowingError, 3) }} {{ unit }}{{ live.inPosition ? ', in position' : '' }}{{ live.standsStill ? ', standstill' : '' }}</text>
    </g>
  </svg>
</template>

<style scoped>
svg { width: 100%; max-width: 400px; height: auto; margin-top: 6px; display: block; }
</style>
