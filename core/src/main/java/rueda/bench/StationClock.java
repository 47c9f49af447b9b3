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

    private final boolean alwaysOwn;

    /**
     * @param number   of the axis
     * @param subSteps in one bus cycle
     * @param ppm      it never is synchronised, and goes wrong by so much; 0 for one that can be
     */
    StationClock(int number, int subSteps, double ppm) {
        this.subSteps = subSteps;
        alwaysOwn = ppm != 0;
        subStepPicos = Bench.SUB_STEP_NANOS * PICOS;
        driftPicos = Math.round((alwaysOwn ? ppm : ClockDrift.ppm(number)) * 1e-6 * subSteps * subStepPicos);
    }

    /** One that is synchronised unless it is said otherwise. */
    StationClock(int number, int subSteps) {
        this(number, subSteps, 0);
    }

    /** It never is synchronised. */
    boolean own() {
        return alwaysOwn;
    }

    /**
     * @param own   it is not synchronised
     * @param place sub-steps of its cycle that the drive has done, 0 where it begins with the bus
     * @return sub-steps in this bus cycle
     */
    int subSteps(boolean own, int place) {
        if (!own && !alwaysOwn) {
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
