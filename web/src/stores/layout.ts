import { useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'

/** How high the dock may be drawn, px. */
export const DOCK = { least: 110, most: 520, usual: 168 }

/** How the panes stand; remembered on this computer. */
export const useLayout = defineStore('layout', () => {
  const dark = useStorage('theme-dark', false)
  const dockHeight = useStorage('dock-height', DOCK.usual)
  const dockFolded = useStorage('dock-folded', false)
  const railFolded = useStorage('rail-folded', false)
  const sideFolded = useStorage('side-folded', false)
  return { dark, dockHeight, dockFolded, railFolded, sideFolded }
})
