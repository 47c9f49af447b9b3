<script setup lang="ts">
import { computed } from 'vue'
import { useAxis } from '../../lib/axis'
import { useMaster } from '../../lib/master'
import { fixed } from '../../lib/numbers'

/** Two combs, one tooth a pitch: the master's above, the follower's below. The marked teeth belong together; what lies between them is the phase. */
const { axis, live, unit } = useAxis()
const f = computed(() => axis.value.following)
const { encoder, unit: masterUnit } = useMaster()
const masterName = computed(() => (encoder.value ? 'master encoder' : f.value.master))
const now = computed(() => (live.value?.following.follows ? live.value.following : null))

/** Of the drawing, a pitch wide each. */
const PITCH = 150
const TEETH = [-1, 0, 1, 2, 3, 4, 5, 6]
const MARKED = 2
const place = computed(() => now.value?.place ?? 0)
/** More than half a pitch off is drawn at its end: the figure says how much it is. */
const shift = computed(() => Math.max(-0.5, Math.min(0.5, now.value?.shift ?? 0)))
const lost = computed(() => Math.max(-0.5, Math.min(0.5, now.value?.lostShare ?? 0)))
const masterX = (tooth: number) => (tooth + place.value) * PITCH + 75
const followerX = (tooth: number) => (tooth + place.value + shift.value) * PITCH + 75
const words = computed(() => {
  if (!now.value) return `${axis.value.name} against ${masterName.value}: the bench does not run, or it does not follow there.`
  return `${axis.value.name} ${now.value.phase}, ${fixed(now.value.deviation, 3)} ${unit.value} from its place.`
})
</script>

<template>
  <figure class="sheet combs" :aria-label="words">
    <svg viewBox="0 0 800 122" role="img" :aria-label="words">
      <defs>
        <pattern id="lost" width="7" height="7" patternTransform="rotate(45)" patternUnits="userSpaceOnUse"><line x1="0" y1="0" x2="0" y2="7" stroke="var(--stop)" stroke-width="1.6" /></pattern>
        <clipPath id="window"><rect x="0" y="0" width="800" height="122" /></clipPath>
      </defs>
      <g clip-path="url(#window)">
        <!-- dimension lines: one pitch of each -->
        <g class="dimension">
          <line :x1="masterX(MARKED)" :x2="masterX(MARKED + 1)" y1="12" y2="12" /><line :x1="masterX(MARKED)" :x2="masterX(MARKED)" y1="6" y2="22" /><line :x1="masterX(MARKED + 1)" :x2="masterX(MARKED + 1)" y1="6" y2="22" />
          <text :x="masterX(MARKED) + PITCH / 2" y="10" text-anchor="middle">{{ f.ratio.masterPitch }} {{ masterUnit }}</text>
          <line :x1="followerX(MARKED)" :x2="followerX(MARKED + 1)" y1="112" y2="112" /><line :x1="followerX(MARKED)" :x2="followerX(MARKED)" y1="104" y2="117" /><line :x1="followerX(MARKED + 1)" :x2="followerX(MARKED + 1)" y1="104" y2="117" />
          <text :x="followerX(MARKED) + PITCH / 2" y="121" text-anchor="middle">{{ f.ratio.followerPitch }} {{ unit }}</text>
        </g>
        <g class="master">
          <line x1="0" x2="800" y1="24" y2="24" />
          <path v-for="tooth in TEETH" :key="tooth" :d="`M${masterX(tooth) - 16} 24 l8 28 h16 l8 -28 z`" :class="{ marked: tooth === MARKED }" />
        </g>
        <g class="follower">
          <line x1="0" x2="800" y1="100" y2="100" />
          <path v-for="tooth in TEETH" :key="tooth" :d="`M${followerX(tooth) - 16} 100 l8 -28 h16 l8 28 z`" :class="{ marked: tooth === MARKED }" />
        </g>
        <rect v-if="Math.abs(lost) > 0.002" :x="masterX(MARKED) - Math.max(0, lost) * PITCH" y="55" :width="Math.abs(lost) * PITCH" height="14" fill="url(#lost)"><title>Lost way</title></rect>
        <line v-if="now" class="mark" :x1="masterX(MARKED)" :x2="masterX(MARKED)" y1="24" y2="100" />
        <text class="name master" x="8" y="42">{{ masterName }}</text>
        <text class="name follower" x="8" y="91">{{ axis.name }}</text>
      </g>
    </svg>
    <figcaption data-testid="follow-status">
      <template v-if="now">
        <b :class="now.locked ? 'ok' : 'warn'">{{ now.phase }}</b>
        <span>off by <b class="mono">{{ fixed(now.deviation, 3) }}</b> {{ unit }}</span>
        <span>phase <b class="mono">{{ fixed(now.shift * 100, 2) }}</b> % of a pitch</span>
        <span v-if="now.lost">lost <b class="mono">{{ fixed(now.lost, 2) }}</b> {{ unit }}</span>
        <span>trimmed <b class="mono">{{ fixed(now.trimmed, 2) }}</b> {{ unit }}</span>
      </template>
      <b v-if="live?.following.warning" class="warn" role="status">{{ live.following.warning }}</b>
      <span v-if="!now">Teeth stand at the pitches; the marked ones belong together. On the bench their offset is the phase.</span>
    </figcaption>
  </figure>
</template>

<style scoped>
.combs { margin: 4px 0; padding: 4px 8px; }
svg { width: 100%; height: 110px; display: block; }
.master line, .master path { stroke: var(--ref); } .follower line, .follower path { stroke: var(--act); }
path { fill: var(--sheet); stroke-width: 1.6; }
.master .marked { fill: var(--ref); } .follower .marked { fill: var(--act); }
.dimension line { stroke: var(--pencil); stroke-width: 1; }
.dimension text { font-size: 11px; fill: var(--pencil); paint-order: stroke; stroke: var(--sheet); stroke-width: 4; }
.name { font-size: 13px; font-weight: 700; paint-order: stroke; stroke: var(--sheet); stroke-width: 4; }
.name.master { fill: var(--ref); } .name.follower { fill: var(--act); }
.mark { stroke: var(--ref); stroke-width: 1; stroke-dasharray: 3 3; }
figcaption { display: flex; flex-wrap: wrap; gap: 2px 14px; font-size: 13px; color: var(--pencil); }
.ok { color: var(--ok); } .warn { color: var(--warn); }
</style>
