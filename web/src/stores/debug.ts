import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, type Schemas } from '../api/client'
import { useBench } from './bench'
import { useMachine } from './machine'

type Breakpoint = Schemas['Breakpoint']

/** What a person looks at in the running program: breakpoints, expressions, forced values. The server keeps it for the machine. */
export const useDebug = defineStore('debug', () => {
  const machine = useMachine()
  const bench = useBench()
  const breakpoints = ref<Breakpoint[]>([])
  const watches = ref<string[]>([])
  /** a place in the program that is to be shown; line 0: its tasks */
  const place = shallowRef<{ file: string; line: number } | null>(null)
  const now = computed(() => (bench.state?.program === 'program' ? bench.state.now : null))
  const stack = computed(() => now.value?.stack ?? [])
  const held = computed(() => stack.value[0] ?? null)
  const traced = computed(() => now.value?.traced ?? [])
  const forces = computed(() => now.value?.forces ?? [])

  /* another page may have set them, or this one before it was loaded anew */
  watch(() => now.value && JSON.stringify([now.value.breakpoints, now.value.watches.map((w) => w.expression)]), () => {
    if (!now.value) return
    breakpoints.value = now.value.breakpoints.map(({ file, line, condition }) => ({ file, line, condition }))
    watches.value = now.value.watches.map((w) => w.expression)
  }, { immediate: true })
  watch(() => machine.id, () => {
    breakpoints.value = []
    watches.value = []
  })

  async function setBreakpoints(all: Breakpoint[]) {
    breakpoints.value = all
    await machine.guarded(() => api.breakpoints(machine.id, all))
  }

  /** Sets one, or takes it away. */
  function toggle(file: string, line: number) {
    const others = breakpoints.value.filter((b) => b.file !== file || b.line !== line)
    return setBreakpoints(others.length < breakpoints.value.length ? others : [...others, { file, line, condition: '' }])
  }

  const condition = (at: Breakpoint, text: string) => setBreakpoints(breakpoints.value.map((b) => (b === at ? { ...b, condition: text } : b)))

  /** Lines that have moved with the text. */
  function moved(file: string, lines: Map<number, number>) {
    if (breakpoints.value.some((b) => b.file === file && lines.get(b.line) !== b.line)) void setBreakpoints(breakpoints.value.filter((b) => b.file !== file || lines.get(b.line)).map((b) => (b.file === file ? { ...b, line: lines.get(b.line)! } : b)))
  }

  async function setWatches(all: string[]) {
    watches.value = all
    await machine.guarded(() => api.watches(machine.id, all))
  }

  /** Puts a value into the trace, or takes it out. */
  async function trace(name: string) {
    const names = traced.value.map((t) => t.name)
    const same = (n: string) => n.toLowerCase() === name.toLowerCase()
    await machine.guarded(() => api.traced(machine.id, names.some(same) ? names.filter((n) => !same(n)) : [...names, name]))
  }

  /** Steps begin the program where it does not run. */
  async function step(how: Schemas['StepOrder']['how']) {
    if (bench.state?.program !== 'program') await bench.start('PROGRAM', false)
    if (bench.state) await bench.taken(() => api.stepProgram(machine.id, how))
  }

  async function toLine(file: string, line: number) {
    if (bench.state?.program !== 'program') await bench.start('PROGRAM', false)
    if (bench.state) await bench.taken(() => api.toLine(machine.id, file, line))
  }

  const write = (name: string, value: string, force: boolean) => bench.taken(() => api.writeValue(machine.id, name, value, force))
  const release = (name: string) => bench.taken(() => api.releaseValue(machine.id, name))

  const show = (file: string, line: number) => (place.value = { file, line })

  return { place, show, traced, trace, breakpoints, watches, now, stack, held, forces, toggle, condition, moved, setBreakpoints, setWatches, step, toLine, write, release }
})
