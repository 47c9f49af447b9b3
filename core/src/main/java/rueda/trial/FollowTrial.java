package rueda.trial;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import rueda.advice.MoveAdvice;
import rueda.bench.Bench;
import rueda.bench.BenchCondition;
import rueda.bench.VirtualLine;
import rueda.machine.Axis;
import rueda.machine.Dynamics;
import rueda.machine.Following;
import rueda.machine.Homing;
import rueda.machine.Machine;
import rueda.machine.MasterEncoder;
import rueda.machine.VirtualMaster;
import rueda.machine.Travel;
import rueda.plant.MasterShaft;
import rueda.profile.FollowerLock;
import rueda.profile.MotionProfile;

/**
 * A follower and its master, another axis or the shaft under an encoder, on a bench of their own: the master runs, the follower is tied to it, trimmed, and let go. What is measured, from
 * where both loads are, stands beside what the lock alone would do on a master that runs exactly as it is told.
 */
public final class FollowTrial {

    private static final String NO_PROGRAM = "PROGRAM Pair\nEND_PROGRAM\n";
    private static final int KEPT = 16;
    private static final int FOLLOWER = 0;
    private static final int MASTER = 1;
    /** s of machine time until it is given up that the follower locks */
    private static final double LONGEST = 20;
    private static final double LOCKED_FOR = 0.4;
    private static final double TRIMMED_FOR = 0.5;
    private static final double AFTERWARDS = 0.5;
    private static final int MOST_POINTS = 2000;

    private FollowTrial() {
    }

    /**
     * Ways and speeds in units of the follower; times in s since the trial began.
     *
     * @param masterSpeed    speed of the master times the ratio
     * @param followerSpeed  speed of the follower
     * @param phase          where the follower's load is, less the place that the master's load gives it; of a meeting, from where they are in step on; as it was when let go, after that
     * @param predicted      the same by the lock alone; empty for a meeting
     * @param engaged        when it was tied
     * @param locked         when it was locked, null when it never was
     * @param trimmed        when the trim began, null without one
     * @param released       when it was let go
     * @param lost           way that stayed lost
     * @param worst          the largest phase between the lock and the trim, null when it was not locked
     * @param gap            mean phase in the last tenth of a second before the trim
     * @param trimmedBy      by how much the trim moved the phase
     * @param fastest        the highest speed of the follower
     * @param refusal        why nothing was tried, null when it was
     */
    public record Followed(List<Double> time, List<Double> masterSpeed, List<Double> followerSpeed, List<Double> phase, List<Double> predicted, double engaged, Double locked, Double trimmed, double released,
                         double lost, Double worst, double gap, double trimmedBy, double fastest, String refusal) {
    }

    private static Followed refused(String why) {
        return new Followed(List.of(), List.of(), List.of(), List.of(), List.of(), 0, null, null, 0, 0, null, 0, 0, 0, why);
    }

    /**
     * @param machine     one that can be stored
     * @param axisNumber  the follower, which follows something
     * @param masterSpeed units/s of the master, 0 to its highest; its sign the direction
     * @param running     the follower is tied when the master is at speed, else while it stands
     */
    public static Followed run(Machine machine, int axisNumber, double masterSpeed, boolean running) {
        Axis follower = placed(machine.axes().get(axisNumber));
        if (follower.following().source() == Following.Source.ENCODER) {
            return byEncoder(machine, follower, masterSpeed, running);
        }
        VirtualMaster virtual = machine.virtualMaster(follower.following().master()).orElse(null);
        if (virtual != null) {
            return byVirtual(machine, follower, virtual, masterSpeed, running);
        }
        Axis master = placed(machine.axis(follower.following().master()).orElseThrow());
        Dynamics d = master.limits().normal();
        master = master.withLimits(master.limits().withNormal(new Dynamics(Math.max(1e-9, Math.abs(masterSpeed)), d.acceleration(), d.deceleration(), d.jerk(), d.torque())));
        Machine pair = machine.withAxes(List.of(follower.withCommandedBy(Axis.Commander.MOTION_BLOCKS), master.withCommandedBy(Axis.Commander.MOTION_BLOCKS).withFollowing(Following.NONE))).withProofs(List.of());
        Bench bench = ready(pair);
        double ratio = follower.following().unitsPerUnit(follower, master).toDouble();
        Dynamics ramp = master.limits().normal();
        return new Run(bench, follower, ratio, masterSpeed, ramp.acceleration(), ramp.jerk(), new AxisMaster(bench)).carriedOut(running);
    }

    private static Followed byVirtual(Machine machine, Axis follower, VirtualMaster virtual, double masterSpeed, boolean running) {
        Bench bench = ready(machine.withAxes(List.of(follower.withCommandedBy(Axis.Commander.MOTION_BLOCKS))).withProofs(List.of()));
        VirtualLine line = bench.virtualMaster(virtual.name());
        line.enable(true);
        bench.run(0.05);
        double ratio = follower.following().unitsPerUnit(follower, virtual.asAxis()).toDouble();
        return new Run(bench, follower, ratio, masterSpeed, virtual.acceleration(), virtual.jerk(), new LineMaster(bench, line)).carriedOut(running);
    }

    private static Followed byEncoder(Machine machine, Axis follower, double masterSpeed, boolean running) {
        MasterEncoder encoder = follower.following().encoder();
        double ratio = follower.following().countsPerCount(follower).dividedBy(follower.scale().countsPerUnit()).dividedBy(encoder.unitsPerCount()).toDouble();
        Axis still = follower.withFollowing(follower.following().withEncoder(encoder.withSpeed(0))).withCommandedBy(Axis.Commander.MOTION_BLOCKS);
        Bench bench = ready(machine.withAxes(List.of(still)).withProofs(List.of()));
        return new Run(bench, still, ratio, masterSpeed, encoder.acceleration(), 0, new ShaftMaster(bench.drive(FOLLOWER).plant().masterShaft())).carriedOut(running);
    }

    /** Enabled, and where they are taken to know it. */
    private static Bench ready(Machine machine) {
        Bench bench = new Bench(machine, NO_PROGRAM, KEPT, BenchCondition.throughout(Map.of()));
        bench.takeByHand();
        bench.run(0.05);
        for (int axis = 0; axis < machine.axes().size(); axis++) {
            bench.hand(axis).enable(true);
        }
        bench.run(0.6);
        for (int axis = 0; axis < machine.axes().size(); axis++) {
            bench.hand(axis).home(bench.now());
        }
        bench.run(0.2);
        return bench;
    }

    /** What is followed, as it is measured. Units of it. */
    private interface Master {
        void run(double speed);

        double way();

        double speed();
    }

    /** The other axis, moved by hand at its default speed. */
    private record AxisMaster(Bench bench) implements Master {
        @Override
        public void run(double speed) {
            bench.hand(MASTER).jog(speed < 0 ? -1 : 1, true, bench.now());
        }

        @Override
        public double way() {
            return bench.drive(MASTER).plant().place();
        }

        @Override
        public double speed() {
            return bench.drive(MASTER).plant().speed();
        }
    }

    /** A virtual master, moved by hand. */
    private record LineMaster(Bench bench, VirtualLine line) implements Master {
        @Override
        public void run(double speed) {
            line.run(speed, bench.now());
        }

        @Override
        public double way() {
            return line.way();
        }

        @Override
        public double speed() {
            return line.speed();
        }
    }

    /** The shaft under the encoder. */
    private record ShaftMaster(MasterShaft shaft) implements Master {
        @Override
        public void run(double speed) {
            shaft.run(speed);
        }

        @Override
        public double way() {
            return shaft.way();
        }

        @Override
        public double speed() {
            return shaft.speed();
        }
    }

    /** In the middle of its travel, where its zero is taken to be known. */
    private static Axis placed(Axis axis) {
        Travel t = axis.travel();
        Axis there = axis.endless() ? axis : axis.withTravel(new Travel(t.length(), t.negativeLimit(), t.positiveLimit(), t.camFrom(), t.camTo(), (t.negativeLimit() + t.positiveLimit()) / 2));
        return there.withHoming(Homing.search(37, axis.homing().searchSpeed(), axis.homing().creepSpeed(), axis.homing().acceleration(), MoveAdvice.standsAt(axis)));
    }

    /** One trial. */
    private static final class Run {
        private final Bench bench;
        private final Following following;
        private final double speed;
        private final double ratio;
        private final double rampTime;
        private final double cycle;
        private final Master master;
        private final Lock ideal;
        private final List<double[]> rows = new ArrayList<>();
        private final double begun;
        private double followerFrom;
        private double masterFrom;
        private double highest;
        private double phase;

        Run(Bench bench, Axis follower, double ratio, double masterSpeed, double masterAcceleration, double masterJerk, Master master) {
            this.bench = bench;
            this.master = master;
            this.ratio = ratio;
            following = follower.following();
            speed = masterSpeed;
            rampTime = Math.abs(speed) / masterAcceleration;
            cycle = bench.machine().bus().cycleMicros() * 1e-6;
            ideal = new Lock(follower, ratio, cycle, masterSpeed, masterAcceleration, masterJerk);
            begun = bench.now() * 1e-9;
        }

        private double now() {
            return bench.now() * 1e-9 - begun;
        }

        private double load() {
            return bench.drive(FOLLOWER).plant().place();
        }

        private boolean follows() {
            return following.followsAxis() ? bench.axis(FOLLOWER).followState().follows() : bench.drive(FOLLOWER).following().tied();
        }

        private boolean locked() {
            return following.followsAxis() ? bench.axis(FOLLOWER).followState().locked() : bench.drive(FOLLOWER).following().locked();
        }

        private double lostNow() {
            return following.followsAxis() ? bench.axis(FOLLOWER).followState().lost() : bench.drive(FOLLOWER).following().lost();
        }

        private double trimmedNow() {
            return following.followsAxis() ? bench.axis(FOLLOWER).followState().trimmed() : bench.drive(FOLLOWER).following().trimmed();
        }

        Followed carriedOut(boolean running) {
            boolean meeting = following.lock() == Following.Lock.MEETING;
            if (running || meeting) {
                startMaster();
                pass(rampTime + 0.2);
            } else {
                pass(0.1);
            }
            String refusal = bench.followByHand(FOLLOWER);
            if (refusal != null) {
                return refused(refusal);
            }
            double engaged = now();
            if (!following.followsAxis()) {
                /* the drive takes it with the next bus cycle */
                step();
            }
            followerFrom = load();
            masterFrom = master.way();
            ideal.engage();
            if (!running && !meeting) {
                startMaster();
                pass(rampTime);
            }
            double lockedSince = Double.NaN;
            while (now() < engaged + LONGEST && !(now() - lockedSince >= LOCKED_FOR)) {
                step();
                if (!follows()) {
                    return refused("It followed no more: a limit of the axis was met.");
                }
                lockedSince = !locked() ? Double.NaN : Double.isNaN(lockedSince) ? now() : lockedSince;
            }
            boolean locked = !Double.isNaN(lockedSince);
            double lost = lostNow();
            int atTrim = rows.size();
            Double trimmed = null;
            if (following.trimSpeed() > 0) {
                trimmed = now();
                ideal.trim(1);
                bench.hand(FOLLOWER).trim(1);
                pass(TRIMMED_FOR);
                ideal.trim(0);
                bench.hand(FOLLOWER).trim(0);
                pass(TRIMMED_FOR);
            }
            double trimmedBy = trimmedNow();
            double released = now();
            bench.hand(FOLLOWER).letGo(bench.now());
            ideal.release();
            pass(AFTERWARDS);
            int tenth = (int) Math.round(0.1 / cycle);
            double gap = rows.subList(Math.max(0, atTrim - tenth), atTrim).stream().mapToDouble(r -> r[3]).average().orElse(0);
            if (meeting) {
                double inStep = gap;
                rows.forEach(r -> r[3] -= r[0] < engaged ? 0 : inStep);
                gap = 0;
            }
            Double worst = locked ? worst(lockedSince, atTrim, meeting ? 0 : -lost) : null;
            return result(engaged, locked ? lockedSince : null, trimmed, released, lost, worst, gap, trimmedBy);
        }

        private double worst(double since, int until, double around) {
            return rows.subList(0, until).stream().filter(r -> r[0] >= since).mapToDouble(r -> Math.abs(r[3] - around)).max().orElse(0);
        }

        private void startMaster() {
            master.run(speed);
            ideal.startMaster();
        }

        private void pass(double seconds) {
            double until = now() + seconds;
            while (now() < until) {
                step();
            }
        }

        private void step() {
            bench.cycle();
            ideal.step();
            double follower = bench.drive(FOLLOWER).plant().speed();
            highest = Math.max(highest, Math.abs(follower));
            if (ideal.engaged && !ideal.released) {
                phase = load() - followerFrom - ratio * (master.way() - masterFrom);
            }
            rows.add(new double[] {now(), ratio * master.speed(), follower, phase, ideal.phase()});
        }

        private Followed result(double engaged, Double locked, Double trimmed, double released, double lost, Double worst, double gap, double trimmedBy) {
            int every = Math.max(1, (rows.size() + MOST_POINTS - 1) / MOST_POINTS);
            List<List<Double>> columns = new ArrayList<>();
            for (int c = 0; c < 5; c++) {
                List<Double> column = new ArrayList<>();
                for (int k = 0; k < rows.size(); k += every) {
                    column.add(rows.get(k)[c]);
                }
                columns.add(column);
            }
            return new Followed(columns.get(0), columns.get(1), columns.get(2), columns.get(3), following.lock() == Following.Lock.MEETING ? List.of() : columns.get(4), engaged, locked, trimmed, released, lost, worst, gap, trimmedBy, highest, null);
        }
    }

    /** The lock alone, on a master that runs exactly as it is told. Units of the follower. */
    private static final class Lock {
        private final FollowerLock lock;
        private final MotionProfile masters = new MotionProfile();
        private final MotionProfile trim = new MotionProfile();
        private final Following following;
        private final double masterAcceleration;
        private final double masterJerk;
        private final double trimAcceleration;
        private final double ratio;
        private final double cycle;
        private final double speed;
        private final double grain;
        private boolean runs;
        private boolean engaged;
        private boolean released;
        private double masterTime;
        private double trimTime;
        private double place;
        private double trimPlace;
        private double lostThen;

        Lock(Axis follower, double ratio, double cycle, double speed, double masterAcceleration, double masterJerk) {
            following = follower.following();
            this.masterAcceleration = masterAcceleration;
            this.masterJerk = masterJerk;
            trimAcceleration = follower.limits().normal().acceleration();
            this.ratio = ratio;
            this.cycle = cycle;
            this.speed = speed;
            grain = 1.0 / follower.scale().wireUnitsPerUnit();
            lock = new FollowerLock(cycle);
            lock.limits(following.speedOr(follower.limits()) / grain, following.accelerationOr(follower.limits()) / grain, following.decelerationOr(follower.limits()) / grain, following.catchUp() / grain);
            lock.control(following.gain(), following.feedForward() / 100, following.phaseWindow() / grain);
            trim.planVelocity(0, 0, 0, 0, trimAcceleration, 0);
        }

        void startMaster() {
            runs = true;
            masters.planVelocity(0, 0, 0, speed, masterAcceleration, masterJerk);
        }

        void engage() {
            engaged = true;
            place = runs ? ratio * masters.position(masterTime) : 0;
            FollowerLock.Kind kind = switch (following.lock()) {
                case SPEED -> FollowerLock.Kind.SPEED;
                case LOOSE -> FollowerLock.Kind.LOOSE;
                case POSITION, MEETING -> FollowerLock.Kind.POSITION;
            };
            if (following.lock() == Following.Lock.MEETING) {
                lock.lockedAt(0, 0);
            } else {
                lock.engage(kind, 0, 0, 0);
            }
        }

        void trim(int direction) {
            double at = trim.position(trimTime);
            double now = trim.velocity(trimTime);
            trim.planVelocity(at, now, 0, direction * following.trimSpeed(), trimAcceleration, 0);
            trimTime = 0;
        }

        void release() {
            released = true;
        }

        void step() {
            if (runs) {
                masterTime += cycle;
            }
            trimTime += cycle;
            if (!engaged || released) {
                return;
            }
            double next = runs ? ratio * masters.position(masterTime) : 0;
            double moved = trim.position(trimTime);
            double v = runs ? ratio * masters.velocity(masterTime) : 0;
            lock.step((next - place + moved - trimPlace) / grain, (v + trim.velocity(trimTime)) / grain);
            place = next;
            trimPlace = moved;
            lostThen = lock.offset() * grain;
        }

        double phase() {
            return lostThen + lock.deviation() * grain + trimPlace;
        }
    }
}
