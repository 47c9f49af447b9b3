import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { TagColumns } from '../api/client'

/** The PLC's tag table as it was brought in; it stays while the page is open. */
export const usePlcTable = defineStore('plcTable', () => ({
  name: ref(''),
  text: ref(''),
  columns: ref<TagColumns | null>(null),
  alignment: ref(4),
  counts: ref<'BYTES' | 'ELEMENTS'>('BYTES'),
  order: ref<'' | 'LITTLE_ENDIAN' | 'BIG_ENDIAN' | 'LOW_WORD_FIRST'>(''),
}))
