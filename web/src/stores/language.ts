import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import { api, type Schemas } from '../api/client'

const NONE: Schemas['Words'] = { keywords: [], types: [], functions: [], blocks: [], given: [], constants: [] }

/** The words of Structured Text: lists that the core has, asked once. */
export const useLanguage = defineStore('language', () => {
  const asked = shallowRef<Schemas['Words'] | null>(null)
  const words = computed(() => asked.value ?? NONE)

  async function load() {
    if (!asked.value) asked.value = await api.language()
  }

  return { words, load }
})
