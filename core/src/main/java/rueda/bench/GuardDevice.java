package rueda.bench;

import java.util.List;
import rueda.guard.AxisWatch;
import rueda.guard.GuardLog;
import rueda.guard.GuardRules;
import rueda.guard.TwoChannelInput;
import rueda.machine.Axis;
import rueda.machine.AxisGuard;
import rueda.machine.SafetyRequest;
import rueda.plant.ServoPlant;

/**
 * The guard of one axis on the bench: a device beside the drive, with a clock that is not that of the bus, its own channel of the encoder, and the contacts of the
 * requests. It goes on when the drive is off. No allocation; not thread-safe.
 */
final class GuardDevice {

    private final AxisGuard rules;
    private final AxisWatch watch;
    private final SafetyContacts contacts;
    private final GuardLog log;
    private final TwoChannelInput[] inputs;
    /** for each request the functions that it asks for */
    private final int[] asks;
    private final int subSteps;
    private final double countsPerRadian;
    private final double unitsPerCount;
    /** sub-steps of its own cycle that have passed; its clock begins where it likes */
    private int place;
    private long counts;
    /** that ask behind their filters, a bit for each; those whose sensors show it, and whose contacts are open */
    private int requests;
    private int showing;
    private int opening;
    /** ns on the clock of the bench at which a request was last seen to open, its sensor showed it, and its filter had passed */
    private final long[] opened;
    private final long[] sensed;
    private final long[] known;

    /** @param contacts of the requests, which all guards look at */
    GuardDevice(int number, Axis axis, List<SafetyRequest> requests, SafetyContacts contacts) {
        rules = axis.guard();
        this.contacts = contacts;
        log = new GuardLog(number);
        GuardRules watched = GuardRules.of(rules);
        watch = new AxisWatch(watched);
        subSteps = (int) Math.round(rules.cycle() / AxisGuard.CYCLE_STEP);
        place = 3 * number % subSteps;
        countsPerRadian = rules.countsPerTurn() / (2 * Math.PI);
        unitsPerCount = watched.unitsPerCount();
        inputs = requests.stream().map(r -> new TwoChannelInput(watched.cycles(r.reaction()), watched.cycles(r.filter()), watched.cycles(r.discrepancy()))).toArray(TwoChannelInput[]::new);
        opened = new long[inputs.length];
        sensed = new long[inputs.length];
        known = new long[inputs.length];
        for (int i = 0; i < inputs.length; i++) {
            inputs[i].begin(contacts.first(i), contacts.second(i));
        }
        asks = requests.stream().mapToInt(r -> rules.asks().stream().filter(a -> a.request().equals(r.name())).mapToInt(a -> a.function().bit()).reduce(0, (a, b) -> a | b)).toArray();
    }

    /** Sub-steps until its cycle ends, 1 or more. */
    int untilCycle() {
        return subSteps - place;
    }

    /** Its cycle ends. @param now ns on the clock of the bench  @return whether it says something new */
    boolean cycle(ServoPlant plant, long now) {
        long before = counts;
        counts = (long) Math.floor(plant.mechanics().angle() * countsPerRadian);
        int asked = 0;
        int asking = 0;
        int shown = 0;
        int open = 0;
        for (int i = 0; i < inputs.length; i++) {
            open |= contacts.first(i) && contacts.second(i) ? 0 : 1 << i;
            if (inputs[i].cycle(contacts.first(i), contacts.second(i))) {
                asked |= asks[i];
                asking |= 1 << i;
            }
            shown |= inputs[i].sensed() ? 1 << i : 0;
        }
        opening = stamp(opened, opening, open, now);
        showing = stamp(sensed, showing, shown, now);
        stamp(known, requests, asking, now);
        boolean told = asking != requests;
        requests = asking;
        int force = watch.inForce();
        var phase = watch.phase();
        var leading = watch.leading();
        boolean braked = !watch.brakeMayOpen();
        watch.cycle(counts, asked, contacts.acknowledge());
        boolean changed = watch.phase() != phase || watch.leading() != leading;
        if (changed) {
            log.add(now, watch, counts * unitsPerCount, Math.abs((counts - before) * unitsPerCount) / (rules.cycle() * 1e-3));
        }
        return changed || told || force != watch.inForce() || braked == watch.brakeMayOpen();
    }

    /** Those that come are told the time. @return those that are there now */
    private static int stamp(long[] times, int before, int there, long now) {
        for (int come = there & ~before; come != 0; come &= come - 1) {
            times[Integer.numberOfTrailingZeros(come)] = now;
        }
        return there;
    }

    /** How a request came last. @param request its number */
    Heard heard(int request) {
        return new Heard(opened[request], sensed[request], known[request]);
    }

    /** So many sub-steps have passed. @return whether its cycle ends now */
    boolean passed(int many) {
        place = (place + many) % subSteps;
        return place == 0;
    }

    /** Sub-steps of its cycle. */
    int subSteps() {
        return subSteps;
    }

    /** Everything of it that a cycle may change. */
    Object[] state() {
        return new Object[] {watch, inputs};
    }

    /** Requests that ask, behind their filters: a bit for each, 0 the first. */
    int requests() {
        return requests;
    }

    GuardLog log() {
        return log;
    }

    AxisWatch watch() {
        return watch;
    }

    boolean torque() {
        return watch.torque();
    }

    /** The drive is asked to stop and to hold. */
    boolean stops() {
        return rules.slowing() == AxisGuard.Slowing.DRIVE && watch.asksToStop();
    }

    boolean brakeMayOpen() {
        return !rules.brake() || watch.brakeMayOpen();
    }
}
