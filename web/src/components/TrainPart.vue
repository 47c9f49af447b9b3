<script setup lang="ts">
/** One part of the drive train: how it is drawn, and its entries below. The shaft runs through all drawings at the same height. */
defineProps<{ name: string; label: string; wide?: boolean; last?: boolean; secondEncoder?: boolean }>()
</script>

<template>
  <fieldset class="part" :class="{ wide }">
    <legend class="visually-hidden">{{ label }}</legend>
    <svg viewBox="0 0 120 84" preserveAspectRatio="xMidYMid meet" class="drawing" aria-hidden="true">
      <path :d="last ? 'M-200 48H36' : name === 'encoder' ? 'M40 48H320' : 'M-200 48H320'" stroke="var(--ink)" stroke-width="3" />
      <g fill="var(--sheet)" stroke="var(--ink)" stroke-width="1.6">
        <template v-if="name === 'encoder'">
          <rect x="40" y="26" width="40" height="44" />
          <path d="M50 26v44M60 26v44M70 26v44" stroke="var(--pencil)" stroke-width="0.8" />
        </template>
        <template v-else-if="name === 'motor'">
          <rect x="20" y="22" width="80" height="52" />
          <path d="M32 22v52M44 22v52M56 22v52M68 22v52M80 22v52" stroke="var(--pencil)" stroke-width="0.7" />
        </template>
        <template v-else-if="name === 'reducer'">
          <path d="M26 32h30v32h-30zM56 22h38v52h-38z" />
          <path d="M26 40h30M56 34h38" stroke="var(--pencil)" stroke-width="0.7" />
        </template>
        <template v-else-if="name === 'rack'">
          <circle cx="60" cy="44" r="23" /><circle cx="60" cy="44" r="19" fill="none" stroke="var(--pencil)" stroke-dasharray="4 3.5" stroke-width="4" />
          <circle cx="60" cy="44" r="4" fill="var(--ink)" />
          <path d="M10 76l4 -6h5l4 6h5l4 -6h5l4 6h5l4 -6h5l4 6h5l4 -6h5l4 6h5l4 -6h5l4 6h5l4 -6h5l4 6" fill="none" />
        </template>
        <template v-else-if="name === 'screw'">
          <rect x="10" y="41" width="100" height="14" />
          <path d="M14 41l6 14M24 41l6 14M34 41l6 14M44 41l6 14M54 41l6 14M64 41l6 14M74 41l6 14M84 41l6 14M94 41l6 14" stroke="var(--pencil)" />
          <rect x="46" y="30" width="30" height="36" />
        </template>
        <template v-else-if="name === 'belt'">
          <path d="M30 28H90M30 68H90" /><circle cx="30" cy="48" r="20" /><circle cx="90" cy="48" r="20" />
          <circle cx="30" cy="48" r="4" fill="var(--ink)" /><circle cx="90" cy="48" r="4" fill="var(--ink)" />
        </template>
        <template v-else-if="name === 'direct'">
          <path d="M44 26h14v44h-14zM62 26h14v44h-14z" /><path d="M50 32v32M70 32v32" stroke="var(--pencil)" stroke-width="0.7" />
        </template>
        <template v-else-if="name === 'feeder'">
          <path d="M40 18h40l-8 20h-24z" /><rect x="14" y="38" width="92" height="20" />
          <path d="M18 58q6 -20 12 0q6 -20 12 0q6 -20 12 0q6 -20 12 0q6 -20 12 0q6 -20 12 0q6 -20 12 0" fill="none" stroke="var(--pencil)" />
          <path d="M98 58v16M94 70l4 6l4 -6" stroke="var(--act)" fill="none" />
        </template>
        <rect v-else x="36" y="24" width="56" height="48" stroke="var(--act)" stroke-width="2" />
      </g>
      <g v-if="secondEncoder" fill="var(--sheet)" stroke="var(--ink)" stroke-width="1.6">
        <path d="M92 48h16" stroke-width="3" /><rect x="108" y="34" width="24" height="28" /><path d="M114 34v28M120 34v28M126 34v28" stroke="var(--pencil)" stroke-width="0.8" />
        <text x="120" y="78" text-anchor="middle" stroke="none" class="fill-pencil">encoder</text>
      </g>
      <text x="60" y="12" text-anchor="middle">{{ label.toLowerCase() }}</text>
    </svg>
    <div class="fields"><slot /></div>
  </fieldset>
</template>

<style scoped>
.part { border: 0; padding: 0; min-width: 92px; flex: 1 1 0; }
.part:first-child { min-width: 106px; }
.part.wide { flex: 2 1 0; min-width: 184px; }
svg { display: block; width: 100%; height: 84px; overflow: hidden; }
.fields { display: grid; grid-template-columns: minmax(0, 1fr); gap: 3px 6px; padding: 0 4px; --field-width: 100%; }
.wide .fields { grid-template-columns: minmax(0, 1fr) minmax(0, 1fr); }
.fields :deep(input), .fields :deep(select) { font-size: 13px; }
.fields :deep(i) { font-size: 11px; padding-left: 2px; }
.fields :deep(.box) { padding: 0 5px; }
.fields :deep(select.plain) { padding: 2px 0 2px 3px; }
</style>
