import { computed } from 'vue'
import { useBench } from '../stores/bench'
import { useMachine } from '../stores/machine'

/** The chosen axis as every stage needs it: its entries, where they stand in the document, and the axis on the bench. */
export function useAxis() {
  const machine = useMachine()
  const bench = useBench()
  const axis = computed(() => machine.axis!)
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
