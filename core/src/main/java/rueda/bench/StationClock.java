package rueda.bench;

import rueda.bus.ClockDrift;

/**
 * The clock of one station: how many sub-steps its drive takes in a bus cycle. Synchronised it is as many as there are. By its own oscillator
 * ({@link ClockDrift#ppm}) it is one more or one less now and then, so that the drive takes its setpoints ever later in the bus cycle, or ever
 * earlier, and one twice or none at all when a whole cycle has gone by. Once synchronised again it is brought back by a sub-step a cycle.
 *
 * <p>Time is exact, in picoseconds. No allocation; not thread-safe.
 */
final class StationClock {

    private static final long PICOS = 1000;

    private final int subSteps;
    private final long subStepPicos;
    /** by how much its cycle is longer or shorter than that of the bus */
    private final long driftPicos;
    private long gone;

    /** @param number of the axis  @param subSteps in one bus cycle */
    StationClock(int number, int subSteps) {
        this.subSteps = subSteps;
        subStepPicos = Bench.SUB_STEP_NANOS * PICOS;
        driftPicos = Math.round(ClockDrift.ppm(number) * 1e-6 * subSteps * subStepPicos);
    }

    /**
     * @param own   it is not synchronised
     * @param place sub-steps of its cycle that the drive has done, 0 where it begins with the bus
     * @return sub-steps in this bus cycle
     */
    int subSteps(boolean own, int place) {
        if (!own) {
            gone = 0;
            return place == 0 ? subSteps : subSteps + 1;
        }
        gone += driftPicos;
        if (gone >= subStepPicos) {
            gone -= subStepPicos;
            return subSteps + 1;
        }
        if (gone <= -subStepPicos) {
            gone += subStepPicos;
            return subSteps - 1;
        }
        return subSteps;
    }
}
