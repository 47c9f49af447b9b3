import { computed } from 'vue'
import { useBench } from '../stores/bench'
import { useMachine } from '../stores/machine'

/** The chosen axis as every stage needs it: its entries, where they stand in the document, and the axis on the bench. */
export function useAxis() {
  const machine = useMachine()
  const bench = useBench()
  /* a stage that is being taken off because its axis is gone draws the last one once more */
  let last = machine.axis!
  const axis = computed(() => (last = machine.axis ?? last))
  return {
    machine,
    bench,
    axis,
    /** JSON pointer of the axis. */
    at: computed(() => `/axes/${machine.axisIndex}`),
    unit: computed(() => axis.value.unit.symbol),
    /** The axis on the bench, or null when the bench is off. */
    live: computed(() => bench.state?.axes.find((a) => a.name === axis.value.name) ?? null),
  }
}
