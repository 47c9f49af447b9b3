package rueda.machine;

import java.math.BigDecimal;
import java.util.List;
import rueda.machine.Following.FollowRatio;
import rueda.quantity.InvalidEntry;
import rueda.quantity.Ratio;

/** Which ways of following can be stored; part of {@link MachineRules}, for machines whose axes can be otherwise. */
final class FollowRules {

    private static final double MOST = 1e9;
    private static final int MOST_DIGITS = 15;
    private static final double MOST_GAIN = 1000;
    private static final double MOST_FILTER = 1000;
    private static final double MOST_PREDICTION = 100;
    private static final long MOST_TURNS = 1_000_000;
    private static final long MOST_LOST = 1_000_000;

    private final List<EntryFault> faults;
    private final Machine machine;

    FollowRules(List<EntryFault> faults, Machine machine) {
        this.faults = faults;
        this.machine = machine;
    }

    void check() {
        for (int i = 0; i < machine.axes().size(); i++) {
            axis("/axes/" + i + "/following", machine.axes().get(i));
        }
    }

    private void axis(String at, Axis axis) {
        Following f = axis.following();
        if (missing(at + "/source", "What it follows", f.source()) | missing(at + "/master", "Master", f.master()) | missing(at + "/ratio", "Ratio", f.ratio()) | missing(at + "/lock", "Lock", f.lock())
                | missing(at + "/meeting", "Meeting point", f.meeting()) | missing(at + "/release", "When released", f.release()) | watch(at + "/watch", axis, f.watch()) | missing(at + "/encoder", "Master encoder", f.encoder()) || missing(at + "/ratio/form", "Ratio given by", f.ratio().form())
                | exact(at + "/ratio/decimal", "Ratio as a decimal", f.ratio().decimal(), true) | exact(at + "/ratio/masterPitch", "Pitch of the master", f.ratio().masterPitch(), false)
                | exact(at + "/ratio/followerPitch", "Pitch of the follower", f.ratio().followerPitch(), true)) {
            return;
        }
        String unit = axis.unit().symbol();
        Dynamics max = axis.limits().max();
        if (f.ratio().in() < 1 || f.ratio().in() > Integer.MAX_VALUE) {
            refuse(at + "/ratio/in", "Turns of the master", Long.toString(f.ratio().in()), "1 to 2 147 483 647", "enter whole turns");
        }
        if (f.ratio().out() == 0 || f.ratio().out() > Integer.MAX_VALUE || f.ratio().out() < Integer.MIN_VALUE) {
            refuse(at + "/ratio/out", "Turns of the follower", Long.toString(f.ratio().out()), "−2 147 483 648 to 2 147 483 647, not 0", "enter whole turns; a minus turns the follower the other way");
        }
        between(at + "/meeting/master", "Meeting point of the master", f.meeting().master(), -MOST, MOST, "");
        between(at + "/meeting/follower", "Meeting point of the follower", f.meeting().follower(), -MOST, MOST, unit);
        between(at + "/meeting/way", "Way of the master to the meeting point", f.meeting().way(), 0, MOST, "");
        between(at + "/catchUp", "Catch-up limit", f.catchUp(), 0, max.speed(), unit + "/s");
        between(at + "/speed", "Highest speed while following", f.speed(), 0, max.speed(), unit + "/s");
        between(at + "/acceleration", "Highest acceleration while following", f.acceleration(), 0, max.acceleration(), unit + "/s²");
        between(at + "/deceleration", "Highest deceleration while following", f.deceleration(), 0, max.deceleration(), unit + "/s²");
        between(at + "/gain", "Gain of the lock", f.gain(), 1, MOST_GAIN, "1/s");
        between(at + "/feedForward", "Feed-forward of the master's speed", f.feedForward(), 0, 100, "%");
        between(at + "/filter", "Filter of the master", f.filter(), 0, MOST_FILTER, "ms");
        between(at + "/prediction", "Prediction of the master", f.prediction(), 0, MOST_PREDICTION, "ms");
        between(at + "/trimSpeed", "Trim speed", f.trimSpeed(), 0, max.speed(), unit + "/s");
        between(at + "/phaseWindow", "Phase window", f.phaseWindow(), 0, MOST, unit);
        between(at + "/accelerationForward", "Feed-forward of the acceleration", f.accelerationForward(), 0, 100, "%");
        between(at + "/trimAcceleration", "Trim acceleration", f.trimAcceleration(), 0, max.acceleration(), unit + "/s²");
        between(at + "/trimDistance", "Trim distance", f.trimDistance(), 0, MOST, unit);
        if (f.followsAxis()) {
            master(at, axis, f);
        }
        encoder(at + "/encoder", f.encoder());
        if (f.source() == Following.Source.ENCODER && faults.isEmpty()) {
            followsEncoder(at, axis, f);
        }
    }

    /** @return whether something is missing */
    private boolean watch(String at, Axis axis, FollowWatch w) {
        if (missing(at, "Watch", w)) {
            return true;
        }
        boolean gaps = missing(at + "/line", "When a line breaks", w.line()) | missing(at + "/index", "When the index pulse is missing", w.index()) | missing(at + "/lost", "When counts are lost", w.lost())
                | missing(at + "/phase", "When the phase leaves its limit", w.phase()) | missing(at + "/tooFast", "When the master is too fast", w.tooFast());
        if (w.lostCounts() < 0 || w.lostCounts() > MOST_LOST) {
            refuse(at + "/lostCounts", "Counts that may be lost", Long.toString(w.lostCounts()), "0 to 1 000 000", "enter whole counts");
        }
        between(at + "/phaseLimit", "Limit of the phase", w.phaseLimit(), 0, MOST, axis.unit().symbol());
        return gaps;
    }

    private void master(String at, Axis axis, Following f) {
        Axis master = machine.master(f.master()).orElse(null);
        if (master == null || master == axis) {
            refuse(at + "/master", "Master", f.master().isBlank() ? "missing" : f.master(), "another axis of the machine, or a virtual master", "choose one");
            return;
        }
        if (f.source() == Following.Source.ACTUAL && machine.virtualMaster(f.master()).isPresent()) {
            refuse(at + "/source", "What it follows", f.source().words() + " " + f.master(), "the setpoint: a virtual master has no other value", "follow its setpoint");
            return;
        }
        if (inCircle(axis)) {
            refuse(at + "/master", "Master", f.master(), "an axis that does not follow " + axis.name() + " itself, directly or over others", "choose another, or let one of them follow nothing");
            return;
        }
        try {
            Ratio ratio = f.wirePerWire(axis, master);
            if (ratio.numerator() == 0) {
                refuse(at + "/ratio/" + field(f.ratio()), "Ratio", "0", "any ratio but 0", "enter another");
            }
        } catch (InvalidEntry tooLarge) {
            refuse(at + "/ratio/" + field(f.ratio()), "Ratio", tooLarge.value(), "a ratio that two whole numbers of 64 bits hold", "use smaller whole numbers, or fewer digits");
        }
    }

    private void encoder(String at, MasterEncoder e) {
        if (missing(at + "/signal", "Signal of the master encoder", e.signal()) | missing(at + "/unit", "Unit of the master encoder", e.unit()) | exact(at + "/way", "Way of the master encoder", e.way(), false)) {
            return;
        }
        if (e.countsPerTurn() < 1 || e.countsPerTurn() > 1L << 32) {
            refuse(at + "/countsPerTurn", "Counts per turn of the master encoder", Long.toString(e.countsPerTurn()), "1 to 4 294 967 296", "enter the counts of one turn: lines × 4 for quadrature, 2^bits for an absolute encoder");
        }
        if (e.turns() < 1 || e.turns() > MOST_TURNS) {
            refuse(at + "/turns", "Turns of the master encoder", Long.toString(e.turns()), "1 to 1 000 000", "enter whole turns, and their way");
        }
        if (e.unit().isBlank() || e.unit().length() > 12) {
            refuse(at + "/unit", "Unit of the master encoder", e.unit(), "1 to 12 characters", "enter a unit such as mm");
        }
        between(at + "/speed", "Speed of the master", e.speed(), -MOST, MOST, e.unit() + "/s");
        between(at + "/acceleration", "Acceleration of the master", e.acceleration(), 1e-6, MOST, e.unit() + "/s²");
    }

    private void followsEncoder(String at, Axis axis, Following f) {
        if (f.lock() == Following.Lock.MEETING) {
            refuse(at + "/lock", "Lock", f.lock().words(), "by speed, by position or loose: an encoder does not know where the master is", "choose another");
        }
        try {
            f.countsPerCount(axis);
        } catch (InvalidEntry tooLarge) {
            refuse(at + "/ratio/" + field(f.ratio()), "Ratio", tooLarge.value(), "a ratio that two whole numbers of 64 bits hold", "use smaller whole numbers, or fewer digits");
        }
    }

    private static String field(FollowRatio ratio) {
        return switch (ratio.form()) {
            case TURNS -> "out";
            case PITCHES -> "followerPitch";
            case DECIMAL -> "decimal";
        };
    }

    private boolean inCircle(Axis axis) {
        Axis now = axis;
        for (int i = 0; i < machine.axes().size() && now != null && now.following().follows(); i++) {
            now = machine.axis(now.following().master()).orElse(null);
            if (now == axis) {
                return true;
            }
        }
        return false;
    }

    private boolean exact(String at, String label, BigDecimal value, boolean signed) {
        boolean wrong = value == null || value.precision() > MOST_DIGITS || Math.abs(value.scale()) > MOST_DIGITS || value.abs().compareTo(BigDecimal.valueOf(MOST)) > 0 || (signed ? value.signum() == 0 : value.signum() <= 0);
        if (wrong) {
            refuse(at, label, value == null ? "missing" : value.toString(), (signed ? "−1e9 to 1e9, not 0" : "above 0 to 1e9") + ", at most " + MOST_DIGITS + " digits", "enter such a number");
        }
        return wrong;
    }

    private boolean missing(String field, String label, Object value) {
        if (value == null) {
            refuse(field, label, "missing", "a value", "enter it");
        }
        return value == null;
    }

    private void between(String field, String label, double value, double low, double high, String unit) {
        if (!(value >= low && value <= high)) {
            refuse(field, label, (value + " " + unit).strip(), (low + " to " + high + " " + unit).strip(), "enter a number in this range");
        }
    }

    private void refuse(String field, String label, String value, String allowed, String mend) {
        faults.add(new EntryFault(field, label, value, allowed, mend));
    }
}
