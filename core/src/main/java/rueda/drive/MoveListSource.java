package rueda.drive;

import static rueda.drive.DriveObject.LIST_CHANGE;
import static rueda.drive.DriveObject.LIST_CHANGED_ENTRY;
import static rueda.drive.DriveObject.LIST_CHANGED_SPEED;
import static rueda.drive.DriveObject.LIST_CHANGED_WAY;
import static rueda.drive.DriveObject.LIST_CUES;
import static rueda.drive.DriveObject.SOFT_LIMIT_MAX;
import static rueda.drive.DriveObject.SOFT_LIMIT_MIN;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import rueda.machine.Axis;
import rueda.machine.Cue;
import rueda.machine.MoveEntry;
import rueda.machine.MoveEntry.End;
import rueda.machine.MoveEntry.Kind;
import rueda.machine.MoveEntry.Way;
import rueda.machine.MoveList.By;
import rueda.machine.MoveList.MoveException;
import rueda.machine.MoveList.Starter;
import rueda.machine.Terminal.Function;
import rueda.profile.StoppingWay;

/**
 * Runs the move list of a drive: entries one after the other, started by cues of the terminals, by the bus or by a person.
 *
 * <p>Cues are looked at once a sub-step, so that from the edge behind the filter to the setpoint it is one sub-step. Ends of entries are
 * whole wire units that are added up exactly: repeated distances do not drift by more than the rounding of the distance itself. A motion
 * that stands is at its end when the drive reports in position; time at rest begins then. What does not move brings a moving axis to rest. Stepping allocates nothing. Not thread-safe.
 */
public final class MoveListSource implements SetpointSource {

    /** Entries that take no time are carried out in one sub-step, up to so many; a round of nothing else goes on in the next one. */
    private static final int MOST_AT_ONCE = 64;
    /** A running speed is not changed below this share of the highest. */
    private static final double LEAST_SPEED = 1e-3;
    private static final int NONE = -1;

    /** What the list does. */
    public enum Phase {
        IDLE("stands"),
        MOVING("moves"),
        STOPPING("comes to rest"),
        ARRIVING("arrives"),
        HOMING("finds the zero"),
        WAITING("waits"),
        RESTING("rests"),
        AWAITING("awaits a cue"),
        HELD("is held"),
        FAILED("cannot go on");

        private final String words;

        Phase(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    private final ObjectDictionary dictionary;
    private final Setpoint setpoint;
    private final Actual actual;
    private final Reference reference;
    private final DriveUnits units;
    private final DigitalInputs inputs;
    private final Arrival arrival;
    private final HomingSource homing;
    private final ProfiledSetpoint motion;
    private final RampedSetpoint ramped;
    private double highestSpeed;
    private double highestAcceleration;
    private double highestDeceleration;
    private double highestJerk;
    private ListTable table;
    private int[] rounds;
    private boolean leads;
    private boolean enabledBefore;
    private boolean startedOnce;
    private boolean startBefore;
    private long changeBefore;
    private boolean haltBefore;
    private long activeBefore;
    private boolean cuesUnderWay;

    private Phase phase = Phase.IDLE;
    private ListError error = ListError.NONE;
    private int entry = NONE;
    /** entry with which the list was started, to count its rounds */
    private int startedWith = NONE;
    private long roundsRun;
    private boolean finished;
    /** sub-steps since the entry was begun */
    private long inEntry;
    /** how often each entry has been begun in this round */
    private int[] begunInRound;
    /** the next entry is begun in the next sub-step */
    private boolean begins;
    private long restLeft;
    /** it holds after each entry */
    private boolean stepwise;
    /** phase that a hold has broken off */
    private Phase brokenOff = Phase.IDLE;
    private int outputs;

    /* the running motion */
    private long target;
    /** end of the last motion that was not broken off, wire units beyond the modulo */
    private long reached;
    /** the next distance counts from there: the axis stands at it, or passes it on at speed */
    private boolean atReached;
    private long begun;
    private double speed;
    private double running;
    private boolean marked;
    private int direction = 1;
    /** the entry begins once the axis stands */
    private boolean standsFirst;

    MoveListSource(Axis axis, ObjectDictionary dictionary, Setpoint setpoint, Actual actual, Reference reference, DriveUnits units, DigitalInputs inputs, Arrival arrival, HomingSource homing, ProfiledSetpoint motion, RampedSetpoint ramped) {
        this.dictionary = dictionary;
        this.setpoint = setpoint;
        this.actual = actual;
        this.reference = reference;
        this.units = units;
        this.inputs = inputs;
        this.arrival = arrival;
        this.homing = homing;
        this.motion = motion;
        this.ramped = ramped;
        take(axis);
    }

    /** The list has been written: speeds act at once, everything else when its entry is begun next. */
    void take(Axis axis) {
        double countsPerUnit = 1 / units.unitsPerCount;
        highestSpeed = countsPerUnit * axis.limits().max().speed();
        highestAcceleration = countsPerUnit * axis.limits().max().acceleration();
        highestDeceleration = countsPerUnit * axis.limits().max().deceleration();
        highestJerk = countsPerUnit * axis.limits().max().jerk();
        boolean sameEntries = table != null && table.list.entries().equals(axis.moves().entries());
        if (sameEntries && table.list.equals(axis.moves())) {
            return;
        }
        ListTable before = table;
        activeBefore = active();
        table = new ListTable(axis, units, activeBefore);
        if (rounds == null || rounds.length != table.length) {
            rounds = new int[table.length];
            begunInRound = new int[table.length];
        }
        boolean gone = entry >= table.length || entry >= 0 && before.entry(entry).kind() != table.entry(entry).kind();
        if (gone && running()) {
            fail(ListError.ENTRY_GONE);
        } else if (entry >= table.length) {
            entry = NONE;
        } else if (phase == Phase.MOVING && !sameEntries) {
            double change = table.speed[entry] - before.speed[entry];
            if (table.entry(entry).kind() == Kind.RUN) {
                running = table.speed[entry];
                run();
            } else if (change != 0) {
                changeSpeed(change);
            }
        }
    }

    private long active() {
        return inputs.activeFunctions() | busCues();
    }

    /** Cues 1 to 4 that come over the bus are those of the terminals. */
    private long busCues() {
        long bits = dictionary.get(LIST_CUES);
        return bits == 0 ? 0 : (bits & 1) << Function.CUE.ordinal() | (bits & 2) >> 1 << Function.CUE_2.ordinal() | (bits & 4) >> 2 << Function.CUE_3.ordinal() | (bits & 8) >> 3 << Function.CUE_4.ordinal();
    }

    /* ---- orders ---- */

    /** The mode is chosen, or torque has come: nothing runs, and the axis comes to rest. */
    void enter() {
        atReached = false;
        if (setpoint.speed == 0) {
            motion.stand();
        } else {
            motion.run(0, highestDeceleration, highestJerk);
        }
        phase = Phase.IDLE;
        entry = NONE;
        begins = false;
        finished = false;
        outputs = 0;
    }

    /** Another mode leads, or torque goes: what ran is broken off. */
    void leave() {
        if (leads || phase != Phase.IDLE || outputs != 0) {
            error = ListError.NONE;
            phase = Phase.IDLE;
            entry = NONE;
            begins = false;
            outputs = 0;
            leads = false;
        }
    }

    /**
     * Once a bus cycle while it leads.
     *
     * @param start level of the start bit: its edge starts the entry
     * @param halt  level of the halt bit
     * @param wanted entry that is to be started
     */
    void latch(boolean start, boolean halt, int wanted) {
        leads = true;
        changeOverBus();
        if (!enabledBefore) {
            enabledBefore = true;
            if (table.list.onFirstEnable() && !startedOnce) {
                start(Math.max(0, table.list.firstEntry()));
            }
        }
        if (start && !startBefore) {
            start(wanted);
        }
        startBefore = start;
        if (halt && !haltBefore) {
            hold();
        } else if (!halt && haltBefore) {
            goOn();
        }
        haltBefore = halt;
    }

    /** The bits as they stand while another mode leads: they make no edge when this one does. */
    void follow(boolean start, boolean halt) {
        changeOverBus();
        startBefore = start;
        haltBefore = halt;
    }

    /**
     * An edge in 2041h:04 takes speed or way of an entry over the bus, until the list is written again: a speed at once, a way when the entry
     * is begun next. A speed stays within the highest of the axis; a run keeps its direction.
     */
    private void changeOverBus() {
        long change = dictionary.get(LIST_CHANGE);
        long edges = change & ~changeBefore;
        changeBefore = change;
        int number = (int) dictionary.get(LIST_CHANGED_ENTRY);
        if (edges == 0 || number >= table.length) {
            return;
        }
        Kind kind = table.entry(number).kind();
        if ((edges & 1) != 0 && kind.moves() && kind != Kind.CHANGE_SPEED) {
            double before = Math.abs(table.speed[number]);
            double wanted = clipped(dictionary.get(LIST_CHANGED_SPEED) * units.countsPerWireUnit);
            table.busSpeed[number] = true;
            table.speed[number] = kind == Kind.RUN ? Math.copySign(wanted, table.speed[number]) : wanted;
            if (number == entry && phase == Phase.MOVING) {
                changeSpeed(wanted - before);
            }
        }
        table.busWay[number] |= (edges & 2) != 0 && (kind == Kind.GO_TO || kind == Kind.GO_BY || kind == Kind.TO_MARK);
        if ((edges & 2) != 0 && kind == Kind.GO_TO) {
            table.position[number] = dictionary.get(LIST_CHANGED_WAY);
        } else if ((edges & 2) != 0 && (kind == Kind.GO_BY || kind == Kind.TO_MARK)) {
            table.distance[number] = dictionary.get(LIST_CHANGED_WAY);
        }
    }

    /** Starts an entry; after power-up the one that is set for it. */
    void start(int wanted) {
        int first = table.list.firstEntry();
        int asked = !startedOnce && first >= 0 ? first : wanted;
        startedOnce = true;
        error = ListError.NONE;
        roundsRun = 0;
        startedWith = asked;
        Arrays.fill(rounds, 0);
        if (asked < 0 || asked >= table.length) {
            fail(ListError.NO_SUCH_ENTRY);
            return;
        }
        begin(asked);
        if (haltBefore) {
            hold();
        }
    }

    /** The axis comes to rest, and what ran can go on. */
    void hold() {
        if (phase == Phase.IDLE || phase == Phase.HELD || phase == Phase.FAILED) {
            return;
        }
        brokenOff = phase;
        comeToRest();
        phase = Phase.HELD;
    }

    /** What runs is given up. */
    void reject() {
        if (running()) {
            hold();
            phase = Phase.IDLE;
        }
    }

    /** Goes on where it was broken off. */
    void goOn() {
        if (phase != Phase.HELD) {
            return;
        }
        phase = brokenOff;
        switch (brokenOff) {
            case MOVING -> {
                if (table.entry(entry).kind().runs()) {
                    run();
                } else {
                    goToTarget();
                }
            }
            case IDLE -> afterEntry();
            default -> { }
        }
    }

    /** It holds after each entry, or runs through. */
    void stepwise(boolean now) {
        stepwise = now;
    }

    /* ---- one sub-step ---- */

    @Override
    public void step(int number) {
        ramped.release();
        inEntry++;
        if (begins) {
            begins = false;
            begin(entry);
        }
        if (phase == Phase.MOVING || phase == Phase.STOPPING) {
            move();
        } else {
            stand();
        }
    }

    /** Its motion is done, or has not begun. */
    private void stand() {
        switch (phase) {
            case ARRIVING -> {
                if (arrival.inPosition()) {
                    complete();
                }
            }
            case RESTING -> {
                slowDown();
                if (setpoint.speed == 0 && --restLeft <= 0) {
                    afterRest();
                }
            }
            case WAITING -> {
                slowDown();
                Kind kind = table.entry(entry).kind();
                if (kind == Kind.WAIT && setpoint.speed == 0 && --restLeft <= 0 || kind == Kind.IN_POSITION && arrival.inPosition()) {
                    complete();
                }
            }
            default -> slowDown();
        }
    }

    /** An axis that still moves comes to rest on the ramp that has been planned. */
    private void slowDown() {
        if (setpoint.speed != 0) {
            motion.step();
        }
    }

    private void move() {
        motion.step();
        if (!motion.ended()) {
            return;
        }
        Kind kind = table.entry(entry).kind();
        if (phase == Phase.STOPPING && standsFirst) {
            beginLasting(table.entry(entry));
        } else if (phase == Phase.STOPPING) {
            phase = Phase.ARRIVING;
        } else if (kind.runs()) {
            if (limited()) {
                fail(ListError.SOFT_LIMIT_MET);
            }
        } else if (kind == Kind.TO_MARK && !marked) {
            arrive();
            withoutMark();
        } else {
            arrive();
            if (table.entry(entry).end() == End.PASS) {
                complete();
            } else {
                phase = Phase.ARRIVING;
            }
        }
    }

    private void arrive() {
        reached = target;
        atReached = true;
    }

    private void withoutMark() {
        int otherwise = table.entry(entry).entry();
        if (otherwise >= 0 && otherwise < table.length) {
            begin(otherwise);
        } else {
            fail(ListError.NO_MARK);
        }
    }

    /** After a sub-step: looks at the cues, and at the search for the zero. */
    void observe() {
        long now = active();
        if (now != activeBefore || cuesUnderWay) {
            activeBefore = now;
            cuesUnderWay = table.step(now);
            if (leads) {
                cues();
            }
        }
        if (phase == Phase.HOMING) {
            HomingRun.State state = homing.run().state();
            if (state == HomingRun.State.DONE) {
                motion.stand();
                complete();
            } else if (state == HomingRun.State.FAILED) {
                motion.stand();
                fail(ListError.NO_ZERO);
            }
        }
    }

    private void cues() {
        for (int i = 0; i < table.list.exceptions().size(); i++) {
            MoveException rule = table.list.exceptions().get(i);
            if (table.exception(i) && phase != Phase.IDLE && entry >= rule.from() && entry <= rule.to()) {
                except(rule, table.exceptionSpeed[i]);
            }
        }
        for (int i = 0; i < table.list.starters().size(); i++) {
            Starter rule = table.list.starters().get(i);
            if (table.starter(i)) {
                start(rule.by() == By.SELECTOR ? selected() : rule.entry());
            } else if (table.starterBack(i)) {
                start(rule.otherEntry());
            }
        }
        if (entry < 0 || entry >= table.length) {
            return;
        }
        Kind kind = table.entry(entry).kind();
        if (phase == Phase.MOVING && kind.runs() && table.cue(entry)) {
            endRun();
        } else if (phase == Phase.MOVING && kind == Kind.TO_MARK && !marked && table.cue(entry)) {
            mark();
        } else if (phase == Phase.WAITING && kind == Kind.AWAIT && table.cue(entry)) {
            complete();
        } else if (phase == Phase.AWAITING && table.awaited(entry)) {
            next(entry + 1);
        }
    }

    private void except(MoveException rule, double change) {
        switch (rule.does()) {
            case START -> {
                Arrays.fill(rounds, 0);
                begin(rule.entry());
            }
            case CHANGE_SPEED -> {
                if (phase == Phase.MOVING) {
                    changeSpeed(change);
                }
            }
            case TURN_ROUND -> {
                if (phase == Phase.MOVING) {
                    turnRound();
                }
            }
            case STOP -> hold();
            case GO_ON -> goOn();
        }
    }

    /** The number that the selector inputs say in binary. */
    private int selected() {
        return inputs.functions() >> Function.SELECTOR_1.bit() & 0x3F;
    }

    /* ---- entries ---- */

    private void begin(int first) {
        int now = first;
        finished = false;
        for (int k = 0; k < MOST_AT_ONCE; k++) {
            if (now >= table.length) {
                finish();
                return;
            }
            entry = now;
            if (now == startedWith && innerRound() == 0) {
                roundsRun++;
                Arrays.fill(begunInRound, 0);
            }
            begunInRound[now]++;
            inEntry = 0;
            MoveEntry e = table.entry(now);
            switch (e.kind()) {
                case OUTPUT -> outputs = e.on() ? outputs | 1 << e.output() - 1 : outputs & ~(1 << e.output() - 1);
                case REPEAT -> {
                    if (++rounds[now] < e.times()) {
                        now = e.entry();
                        continue;
                    }
                    rounds[now] = 0;
                }
                default -> {
                    beginLasting(e);
                    return;
                }
            }
            if (stepwise || table.rest[now] > 0 || e.end() != End.GO_ON && e.end() != End.PASS) {
                complete();
                return;
            }
            now = e.end() == End.GO_ON ? e.next() : now + 1;
        }
        entry = now;
        begins = true;
    }

    /** Repeated stretches that are under way: a round of the list begins when none is. */
    private int innerRound() {
        int under = 0;
        for (int done : rounds) {
            under += done > 0 ? 1 : 0;
        }
        return under;
    }

    /** An entry that takes time. */
    private void beginLasting(MoveEntry e) {
        standsFirst = e.kind() == Kind.FIND_ZERO && setpoint.speed != 0;
        if (standsFirst) {
            rampDown();
            phase = Phase.STOPPING;
            return;
        }
        switch (e.kind()) {
            case FIND_ZERO -> {
                phase = Phase.HOMING;
                atReached = false;
                motion.stand();
            }
            case WAIT, AWAIT, IN_POSITION -> {
                comeToRest();
                phase = Phase.WAITING;
                restLeft = table.rest[entry];
            }
            default -> beginMotion(e);
        }
    }

    private void beginMotion(MoveEntry e) {
        begun = atReached ? reached : reference.unwrappedWire(setpoint.position);
        atReached = false;
        marked = false;
        speed = Math.abs(table.speed[entry]);
        switch (e.kind()) {
            case GO_TO -> {
                if (!reference.known()) {
                    fail(ListError.NOT_REFERENCED);
                    return;
                }
                target = reference.endless() ? begun + way(e.way(), table.position[entry]) : table.position[entry];
            }
            case GO_BY -> target = begun + table.distance[entry];
            case TO_MARK -> target = begun + table.windowTo[entry];
            case RUN -> running = table.speed[entry];
            case CHANGE_SPEED -> {
                double now = setpoint.speed / units.radiansPerCount;
                running = (now == 0 ? direction : Math.signum(now)) * clipped(Math.abs(now) + table.speed[entry]);
            }
            case TURN_ROUND -> {
                double now = setpoint.speed / units.radiansPerCount;
                running = now == 0 ? -direction * speed : -now;
            }
            default -> throw new IllegalStateException(e.kind().name());
        }
        if (e.kind().runs()) {
            phase = Phase.MOVING;
            run();
            return;
        }
        long farthest = e.kind() == Kind.TO_MARK ? target + table.distance[entry] : target;
        if (outside(target) || outside(farthest)) {
            fail(ListError.OUTSIDE_SOFT_LIMITS);
            return;
        }
        phase = Phase.MOVING;
        goToTarget();
    }

    /** An axis with ends that knows where it is keeps inside its soft limits; one that stands outside may come in. */
    private boolean outside(long wire) {
        if (!reference.known() || reference.endless()) {
            return false;
        }
        long here = reference.unwrappedWire(setpoint.position);
        return wire < Math.min(dictionary.get(SOFT_LIMIT_MIN), here) || wire > Math.max(dictionary.get(SOFT_LIMIT_MAX), here);
    }

    /** The way to a place of an endless axis; one that is nearer than the axis can stop is reached a turn later. */
    private long way(Way wanted, long place) {
        long range = reference.range();
        long forward = reference.modulo().of(place - begun);
        Way way = wanted == Way.AS_IT_MOVES ? direction < 0 ? Way.BACK : Way.FORWARD : wanted;
        if (way == Way.SHORTEST) {
            return forward > range / 2 ? forward - range : forward;
        }
        int sign = way == Way.FORWARD ? 1 : -1;
        long length = way == Way.FORWARD || forward == 0 ? forward : range - forward;
        double needed = sign * motion.wayToStop(table.deceleration[entry], table.jerk[entry]) / units.countsPerWireUnit;
        return sign * (length + (needed > length ? range * (long) Math.ceil((needed - length) / range) : 0));
    }

    private void goToTarget() {
        long counts = reference.countsAt(target);
        direction = counts == setpoint.position ? direction : counts < setpoint.position ? -1 : 1;
        double passing = table.entry(entry).end() == End.PASS ? passingSpeed(counts) : 0;
        motion.goTo(counts, passing, speed, table.acceleration[entry], table.deceleration[entry], table.jerk[entry]);
        if (leaves()) {
            motion.goTo(counts, 0, speed, highestAcceleration, highestDeceleration, hardest());
        }
    }

    /**
     * The speed at which the axis passes on into the next entry: not above that of either, as fast as this one can reach from rest and the
     * next one can be stopped in; 0 where the next one goes the other way or does not move.
     */
    private double passingSpeed(long counts) {
        int next = table.list.passedInto(entry);
        if (next < 0 || stepwise) {
            return 0;
        }
        int sign = Long.signum(target - reference.unwrappedWire(setpoint.position));
        long wayAfter = wayAfter(next, sign);
        if (sign == 0 || Long.signum(wayAfter) != sign || outside(target + wayAfter)) {
            return 0;
        }
        Kind kind = table.entry(next).kind();
        double limit = kind == Kind.CHANGE_SPEED || kind == Kind.TURN_ROUND ? speed : Math.abs(table.speed[next]);
        double reachable = StoppingWay.speedWithin(Math.abs(counts - setpoint.position), table.acceleration[entry], table.jerk[entry]);
        double stoppable = StoppingWay.speedWithin(Math.abs(wayAfter) * units.countsPerWireUnit, table.deceleration[next], table.jerk[next]);
        return sign * Math.min(Math.min(speed, limit), Math.min(reachable, stoppable));
    }

    /** The way that an entry goes from the target of the running one, wire units; 0 where it cannot be said, or goes nowhere. @param sign of the running motion */
    private long wayAfter(int next, int sign) {
        long place = table.position[next];
        int direction = table.entry(next).kind() == Kind.RUN ? (int) Math.signum(table.speed[next]) : table.entry(next).kind() == Kind.TURN_ROUND ? -sign : sign;
        return switch (table.entry(next).kind()) {
            case GO_BY -> table.distance[next];
            case TO_MARK -> table.windowTo[next] + table.distance[next];
            case GO_TO -> reference.endless() || !reference.known() ? 0 : place - target;
            default -> limited() ? dictionary.get(direction < 0 ? SOFT_LIMIT_MIN : SOFT_LIMIT_MAX) - target : direction * Long.MAX_VALUE / 8;
        };
    }

    private double hardest() {
        return highestJerk == 0 || table.jerk[entry] == 0 ? 0 : Math.max(highestJerk, table.jerk[entry]);
    }

    /** The motion would leave the soft limits on its way: the axis brakes too softly for the speed that is there. */
    private boolean leaves() {
        if (!reference.known() || reference.endless()) {
            return false;
        }
        double low = reference.countsAt(dictionary.get(SOFT_LIMIT_MIN));
        double high = reference.countsAt(dictionary.get(SOFT_LIMIT_MAX));
        return setpoint.position >= low && setpoint.position <= high && (motion.farthest(1) > high + 0.5 || motion.farthest(-1) < low - 0.5);
    }

    /** An axis with ends that runs is on its way to the soft limit. */
    private boolean limited() {
        return reference.known() && !reference.endless();
    }

    private void run() {
        direction = running < 0 ? -1 : 1;
        speed = Math.abs(running);
        if (limited()) {
            target = dictionary.get(running < 0 ? SOFT_LIMIT_MIN : SOFT_LIMIT_MAX);
            if (outside(target) || Long.signum(target - reference.unwrappedWire(setpoint.position)) != direction && setpoint.speed == 0) {
                fail(ListError.SOFT_LIMIT_MET);
                return;
            }
            motion.goTo(reference.countsAt(target), 0, speed, table.acceleration[entry], table.deceleration[entry], table.jerk[entry]);
            if (leaves()) {
                motion.goTo(reference.countsAt(target), 0, speed, highestAcceleration, highestDeceleration, hardest());
            }
        } else {
            motion.run(running, Math.abs(running) < Math.abs(setpoint.speed / units.radiansPerCount) ? table.deceleration[entry] : table.acceleration[entry], table.jerk[entry]);
        }
    }

    /** The cue of a running entry has come. */
    private void endRun() {
        if (table.entry(entry).end() == End.PASS && !stepwise) {
            complete();
        } else {
            rampDown();
            phase = Phase.STOPPING;
        }
    }

    /** Nothing moves it on: an axis that moves slows down, one that stands stays where it is. */
    private void comeToRest() {
        if (setpoint.speed != 0) {
            rampDown();
        } else if (!atReached) {
            motion.stand();
        }
    }

    private void rampDown() {
        atReached = false;
        double deceleration = entry >= 0 && entry < table.length ? table.deceleration[entry] : highestDeceleration;
        double jerk = entry >= 0 && entry < table.length ? table.jerk[entry] : highestJerk;
        motion.run(0, deceleration, jerk);
        if (leaves()) {
            motion.run(0, highestDeceleration, highestJerk);
        }
    }

    /** The probe has come: where the axis is now is the mark. */
    private void mark() {
        long mark = reference.unwrappedWire(actual.position);
        long way = Math.abs(mark - begun);
        if (way < Math.abs(table.windowFrom[entry]) || way > Math.abs(table.windowTo[entry])) {
            return;
        }
        marked = true;
        target = mark + table.distance[entry];
        goToTarget();
    }

    private double clipped(double wanted) {
        return Math.max(LEAST_SPEED * highestSpeed, Math.min(highestSpeed, wanted));
    }

    private void changeSpeed(double change) {
        if (table.entry(entry).kind().runs()) {
            running = Math.signum(running) * clipped(Math.abs(running) + change);
            run();
        } else {
            speed = clipped(speed + change);
            goToTarget();
        }
    }

    /** A run turns round; a motion to a place goes back to where its entry began. */
    private void turnRound() {
        if (table.entry(entry).kind().runs()) {
            running = -running;
            run();
        } else {
            long back = begun;
            begun = target;
            target = back;
            marked = true;
            goToTarget();
        }
    }

    /* ---- ends ---- */

    /** What the entry says is done. */
    private void complete() {
        finished = true;
        if (stepwise) {
            comeToRest();
            phase = Phase.HELD;
            brokenOff = Phase.IDLE;
            return;
        }
        afterEntry();
    }

    private void afterEntry() {
        MoveEntry e = table.entry(entry);
        if (e.end() != End.PASS && e.kind() != Kind.WAIT && table.rest[entry] > 0) {
            comeToRest();
            phase = Phase.RESTING;
            restLeft = table.rest[entry];
        } else {
            afterRest();
        }
    }

    private void afterRest() {
        MoveEntry e = table.entry(entry);
        switch (e.end()) {
            case REST -> finish();
            case GO_ON -> next(e.next());
            case PASS -> next(entry + 1);
            case AWAIT_CUE -> {
                comeToRest();
                phase = Phase.AWAITING;
            }
        }
    }

    private void next(int number) {
        if (number >= table.length) {
            finish();
            return;
        }
        begin(number);
    }

    /** The list is at its end, and the axis stays where it is. */
    private void finish() {
        finished = true;
        if (setpoint.speed != 0) {
            rampDown();
            phase = Phase.STOPPING;
            return;
        }
        phase = Phase.IDLE;
    }

    private void fail(ListError reason) {
        error = reason;
        comeToRest();
        phase = Phase.FAILED;
    }

    /* ---- what can be read ---- */

    /** It finds the zero: the homing source makes the setpoint. */
    boolean homes() {
        return phase == Phase.HOMING;
    }

    /** Something runs: an entry moves, rests or awaits. */
    public boolean running() {
        return phase != Phase.IDLE && phase != Phase.FAILED;
    }

    /** The setpoint moves. */
    boolean moves() {
        return setpoint.speed != 0;
    }

    /** The entry that runs or ran last has done what it says. */
    public boolean entryFinished() {
        return finished;
    }

    /** It holds after each entry. */
    public boolean stepwise() {
        return stepwise;
    }

    public Phase phase() {
        return phase;
    }

    public ListError error() {
        return error;
    }

    /** Number of the entry that runs, or the last one; −1 for none. */
    public int entry() {
        return entry;
    }

    /**
     * An entry that runs otherwise than it was written, because the bus has changed it.
     *
     * @param speed units/s, NaN for the written one
     * @param way   position or distance, units, NaN for the written one
     */
    public record BusChange(int entry, double speed, double way) {
    }

    /** Entries that the bus has changed since the list was written. */
    public List<BusChange> busChanges() {
        List<BusChange> changes = new ArrayList<>();
        for (int i = 0; i < table.length; i++) {
            if (table.busSpeed[i] || table.busWay[i]) {
                long way = table.entry(i).kind() == Kind.GO_TO ? table.position[i] : table.distance[i];
                changes.add(new BusChange(i, table.busSpeed[i] ? Math.abs(table.speed[i]) * units.unitsPerCount : Double.NaN, table.busWay[i] ? way / units.wireUnitsPerUnit : Double.NaN));
            }
        }
        return changes;
    }

    /** How often the entry with which the list was started has been begun since. */
    public long rounds() {
        return roundsRun;
    }

    /** Time since the running entry was begun, s. */
    public double inEntry() {
        return inEntry * units.subStep;
    }

    /** How often the running entry has been begun in this round, 1 for the first time. */
    public int turn() {
        return entry < 0 || entry >= begunInRound.length ? 0 : begunInRound[entry];
    }

    /** How often the stretch that the entry repeats has been run, 0 before the first end. @param number of a REPEAT */
    public int repeats(int number) {
        return rounds[number];
    }

    /** Outputs that the entries set, bit 0 the first. */
    int outputs() {
        return outputs;
    }
}
