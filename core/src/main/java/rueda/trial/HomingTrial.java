package rueda.trial;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.DoubleStream;
import java.util.stream.Stream;
import rueda.bench.Bench;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.machine.Travel;

/**
 * Homing carried out on a bench of its own, from a chosen start: the path, where zero lies, where the axis comes to
 * rest and how long it takes. Nothing is estimated: the drive searches as it would.
 */
public final class HomingTrial {

    private static final double LONGEST = 300;

    private HomingTrial() {
    }

    /**
     * One stretch of the path. Places in user units from the negative hard stop.
     *
     * @param from  where it begins
     * @param to    where the axis turns or stops
     * @param speed highest speed on it, units/s
     * @param time  when it ends, s since the search began
     */
    public record Stretch(double from, double to, double speed, double time) {
    }

    /**
     * @param found    zero was found
     * @param message  in words
     * @param start    where it began
     * @param zero     place of the zero
     * @param rest     where the axis stands afterwards
     * @param duration from the start of the search until the axis stands, s
     * @param path     stretches between reversals
     */
    public record Result(boolean found, String message, double start, double zero, double rest, double duration, List<Stretch> path) {
    }

    /** A program that switches one axis on and homes it. */
    public static String program(String axis) {
        return "PROGRAM HomingTrial\nVAR\n  Power : MC_Power;\n  Home : MC_Home;\nEND_VAR\n"
                + "Power(Axis := " + axis + ", Enable := TRUE);\n"
                + "Home(Axis := " + axis + ", Execute := Power.Status);\nEND_PROGRAM\n";
    }

    /**
     * Homes one axis.
     *
     * @param axisNumber number of the axis
     * @param start      user units from the negative hard stop
     */
    public static Result run(Machine machine, int axisNumber, double start) {
        return run(machine, axisNumber, start, Thread.currentThread());
    }

    private static Result run(Machine machine, int axisNumber, double start, Thread asker) {
        Axis axis = machine.axes().get(axisNumber);
        Travel t = axis.travel();
        Axis placed = axis.withTravel(new Travel(t.length(), t.negativeLimit(), t.positiveLimit(), t.camFrom(), t.camTo(), start));
        Bench bench = AxisAlone.of(machine, placed, program(axis.name()), Set.of());
        bench.computedFor(asker);
        long[] memory = bench.resource().memory();
        int done = bench.resource().program().variable("Home.Done").orElseThrow().slot();
        int error = bench.resource().program().variable("Home.Error").orElseThrow().slot();
        int busy = bench.resource().program().variable("Home.Busy").orElseThrow().slot();
        List<Stretch> path = new ArrayList<>();
        double begun = -1;
        double from = start;
        /* the last wire units, in which the setpoint is handed back to the PLC, are no stretch */
        double settling = 3.0 / axis.scale().wireUnitsPerUnit();
        double fastest = 0;
        int direction = 0;
        while (memory[done] == 0 && memory[error] == 0 && bench.now() < LONGEST * 1e9) {
            bench.cycle();
            if (begun < 0 && memory[busy] != 0) {
                begun = bench.now() * 1e-9;
                from = bench.drive(0).plant().place();
            }
            if (begun < 0) {
                continue;
            }
            double speed = bench.drive(0).demandSpeed();
            int now = Math.abs(speed) < 0.01 * axis.homing().creepSpeed() ? 0 : (int) Math.signum(speed);
            double place = bench.drive(0).plant().place();
            if (direction != 0 && now != direction && Math.abs(place - from) > settling) {
                path.add(new Stretch(from, place, fastest, bench.now() * 1e-9 - begun));
                from = place;
                fastest = 0;
            }
            direction = now;
            fastest = Math.max(fastest, Math.abs(speed));
        }
        boolean found = memory[done] != 0;
        double rest = bench.drive(0).plant().place();
        double zero = bench.drive(0).plant().placeOfCount(bench.drive(0).zeroCounts());
        double duration = bench.now() * 1e-9 - Math.max(0, begun);
        return new Result(found, found ? "Zero found." : memory[error] != 0 ? failure(bench) : "No zero within " + LONGEST + " s.",
                start, zero, rest, duration, List.copyOf(path));
    }

    private static String failure(Bench bench) {
        return switch (bench.axis(0).error()) {
            case HOMING_FAILED -> {
                String words = bench.drive(0).homingFailure().words();
                yield Character.toUpperCase(words.charAt(0)) + words.substring(1) + ".";
            }
            case DRIVE_FAULT -> String.format("The drive stopped with fault %04Xh.",
                    bench.drive(0).dictionary().get(rueda.drive.DriveObject.ERROR_CODE));
            default -> "Homing was refused: " + bench.axis(0).error().words() + ".";
        };
    }

    /** The slowest of several starts, or one that failed: parked, the ends, both sides of the cam or on it. */
    public static Result worst(Machine machine, int axisNumber) {
        return worst(machine, axisNumber, run(machine, axisNumber, machine.axes().get(axisNumber).travel().parkedAt()));
    }

    /** The same when the search from the parked place is known. The others are carried out side by side. */
    public static Result worst(Machine machine, int axisNumber, Result parked) {
        Axis axis = machine.axes().get(axisNumber);
        Travel t = axis.travel();
        double below = t.camFrom() - 0.001 * t.length();
        double[] starts = axis.endless()
                ? new double[] {t.camTo() + 0.001 * t.length(), below < 0 ? below + t.length() : below, (t.camFrom() + t.camTo()) / 2}
                : new double[] {Math.max(0, t.positiveLimit() - 0.001 * t.length()), Math.max(0, below), t.negativeLimit() / 2};
        Thread asker = Thread.currentThread();
        return Stream.concat(Stream.of(parked), DoubleStream.of(starts).parallel().mapToObj(start -> run(machine, axisNumber, start, asker)))
                .reduce((one, other) -> !one.found() || other.found() && one.duration() >= other.duration() ? one : other).orElseThrow();
    }
}
