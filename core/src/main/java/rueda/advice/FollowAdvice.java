package rueda.advice;

import static rueda.advice.Numbers.significant;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import rueda.advice.Finding.Mend;
import rueda.advice.Finding.Severity;
import rueda.machine.Axis;
import rueda.machine.Axis.Commander;
import rueda.machine.FollowWatch;
import rueda.machine.Following;
import rueda.machine.Following.Form;
import rueda.machine.Following.Lock;
import rueda.machine.Following.Source;
import rueda.machine.LoadEncoder;
import rueda.machine.Machine;
import rueda.machine.Terminal;
import rueda.machine.Terminal.Function;
import rueda.quantity.Ratio;

/** Consequences of following a master: speeds and loads, what is lost and made up, what drifts. */
public final class FollowAdvice extends AxisAdvice {

    private static final MathContext EXACTLY = new MathContext(30);
    private static final int SECONDS_AN_HOUR = 3600;
    private static final double SUB_STEP = 125e-6;
    /** Share of the highest speed that is proposed for catching up (our choice). */
    private static final double CATCH_UP_SHARE = 0.1;
    private static final double TRIM_SHARE = 0.02;

    private final Machine machine;
    private final Following f;
    private final FollowedMaster master;
    private final String at;
    private final String masterUnit;
    private final Ratio exact;
    private final double ratio;
    private final double masterSpeed;
    private final double speed;

    private FollowAdvice(Machine machine, Axis axis, FollowedMaster master, String pointer) {
        super("follow", axis, pointer);
        this.machine = machine;
        this.master = master;
        f = axis.following();
        at = pointer + "/following";
        masterUnit = master.unit();
        exact = master.ratio();
        ratio = exact.toDouble();
        masterSpeed = master.speed();
        speed = Math.abs(ratio) * masterSpeed;
    }

    /** @param pointer JSON pointer of the axis in the document */
    public static Advice of(Machine machine, Axis axis, String pointer) {
        if (!axis.following().follows()) {
            return new Advice(java.util.List.of(), java.util.List.of());
        }
        FollowAdvice advice = new FollowAdvice(machine, axis, FollowedMaster.of(machine, axis), pointer);
        if (axis.following().source() == Source.ENCODER) {
            advice.input();
        } else {
            advice.commander();
        }
        advice.speeds();
        advice.lock();
        advice.delay();
        advice.phase();
        advice.drift();
        if (advice.nothingFound()) {
            advice.finding(Severity.GOOD, "It follows its master exactly.", "Speed, acceleration and ratio fit; nothing is lost however long it follows.", null);
        }
        return advice.advice();
    }

    private void commander() {
        if (axis.commandedBy() != Commander.MOTION_BLOCKS) {
            finding(Severity.FAULT, "Nothing in the PLC makes it follow.", "It is commanded by " + axis.commandedBy().words() + "; following is done by motion blocks.", Mend.set("Let motion blocks command it", pointer + "/commandedBy", Commander.MOTION_BLOCKS.name()));
        }
        if (f.source() == Source.SETPOINT && master.axis() != null && master.axis().commandedBy() != Commander.MOTION_BLOCKS) {
            finding(Severity.FAULT, "The PLC does not make the setpoint of " + master.name() + ".", master.name() + " is commanded by " + master.axis().commandedBy().words() + ": only its actual position is known.", Mend.set("Follow its actual position", at + "/source", Source.ACTUAL.name()));
        }
    }

    /** The second encoder input: wired, and for nothing else. */
    private void input() {
        Terminal input = axis.wiring().terminals().stream().filter(t -> t.kind() == Terminal.Kind.SECOND_ENCODER).findFirst().orElse(null);
        if (input == null) {
            finding(Severity.FAULT, "The station has no second encoder input.", "There is nothing to follow at it.", null);
        } else if (axis.loadEncoder().fitted()) {
            finding(Severity.FAULT, "Two want the second encoder input.", "The stage Scale uses it for the encoder on the load, and here it is to be followed.", Mend.set("Take the encoder on the load out", pointer + "/loadEncoder/use", LoadEncoder.Use.NONE.name()));
        } else if (input.function() != Function.MASTER_ENCODER) {
            finding(Severity.FAULT, "The master encoder is not wired.", input.name() + " has the function " + input.function().words() + ", so the drive does not read it.",
                    Mend.set("Give " + input.name() + " the function master encoder", pointer + "/wiring/terminals/" + axis.wiring().indexOf(input) + "/function", Function.MASTER_ENCODER.name()));
        }
        if (axis.commandedBy() == Commander.DRIVE && axis.wiring().terminal(Function.FOLLOW).isEmpty()) {
            Terminal free = axis.wiring().terminals().stream().filter(t -> t.kind() == Terminal.Kind.INPUT && t.function() == Function.NONE).findFirst().orElse(null);
            finding(Severity.FAULT, "No input has it follow.", "The drive commands itself, and its follow input alone ties it to its master.", free == null ? null : Mend.set("Give " + free.name() + " the function follow", pointer + "/wiring/terminals/" + axis.wiring().indexOf(free) + "/function", Function.FOLLOW.name()));
        }
        if (axis.commandedBy() == Commander.MOTION_BLOCKS) {
            finding(Severity.WARNING, "Motion blocks do not have it follow its encoder.", "It follows by hand; for more, let the drive command itself, or the program by its own words: mode −2 and bit 4.", Mend.set("Let the drive command itself", pointer + "/commandedBy", Commander.DRIVE.name()));
        }
    }

    private static String per(String unit) {
        return unit + "/s";
    }

    private void speeds() {
        figure("Ratio", exact.toString(), unit + " : " + masterUnit, f.ratio().form() == Form.TURNS ? f.ratio().out() + " turns of " + axis.name() + " for " + f.ratio().in() + " of " + master.name() : f.ratio().form() == Form.PITCHES ? "one pitch for one" : "the decimal as a fraction");
        double fastest = Math.abs(ratio) * master.highestSpeed();
        figure("Speed at the default speed of " + master.name(), significant(speed, 5), per(unit), significant(masterSpeed, 5) + " " + per(masterUnit) + " × " + significant(Math.abs(ratio), 6));
        figure("Speed at its highest", significant(fastest, 5), per(unit), significant(master.highestSpeed(), 5) + " " + per(masterUnit) + " × " + significant(Math.abs(ratio), 6));
        double torque = Math.abs(axis.motorSide().torque(fastest, 0));
        figure("Motor load there", significant(100 * torque / axis.motor().ratedTorque(), 3), "%", "friction and weight " + significant(torque, 3) + " N·m ÷ rated " + significant(axis.motor().ratedTorque(), 3) + " N·m");
        double most = f.speedOr(axis.limits());
        double motor = axis.scale().highestSpeed(axis.motor().maxSpeed());
        double limit = Math.min(most, motor);
        String by = motor < most ? "the motor's highest speed" : f.speed() > 0 && f.speed() < axis.limits().max().speed() ? "its highest speed while following" : "the highest speed of the axis";
        figure("Highest speed of " + master.name() + " that is followed", significant(limit / Math.abs(ratio), 5), per(masterUnit), by + ", " + significant(limit, 5) + " " + per(unit) + " ÷ " + significant(Math.abs(ratio), 6));
        if (speed > limit * (1 + 1e-9)) {
            finding(Severity.FAULT, "It cannot follow at the default speed.", significant(speed, 5) + " " + per(unit) + " are asked for, " + by + " is " + significant(limit, 5) + ".", limitMend(speed));
        } else if (fastest > limit * (1 + 1e-9)) {
            finding(Severity.WARNING, "It cannot follow at the highest speed of " + master.name() + ".", "Above " + significant(limit / Math.abs(ratio), 5) + " " + per(masterUnit) + " it falls behind.", limitMend(fastest));
        }
        double needed = Math.abs(ratio) * master.acceleration();
        double has = Math.min(f.accelerationOr(axis.limits()), f.decelerationOr(axis.limits()));
        if (needed > has * (1 + 1e-9)) {
            boolean own = needed <= Math.min(axis.limits().max().acceleration(), axis.limits().max().deceleration());
            finding(Severity.WARNING, "It falls behind whenever " + master.name() + " accelerates.", "Its place accelerates with " + significant(needed, 4) + " " + unit + "/s², it may " + significant(has, 4) + ".",
                    own ? new Mend("Let it use what the axis may", java.util.List.of(new Finding.Change("replace", at + "/acceleration", 0.0), new Finding.Change("replace", at + "/deceleration", 0.0))) : null);
        }
    }

    private Mend limitMend(double wanted) {
        return f.speed() > 0 && f.speed() < wanted && wanted <= axis.limits().max().speed() ? Mend.set("Let it use the speed of the axis", at + "/speed", 0.0) : null;
    }

    private void lock() {
        FollowTheory theory = FollowTheory.of(axis, speed);
        if (f.lock() == Lock.MEETING) {
            return;
        }
        String condition = "tied while " + master.name() + " runs at its default speed, from standstill";
        figure("Comes up to speed in", seconds(theory.comesUp()), "s", "v ÷ a = " + significant(speed, 5) + " ÷ " + significant(f.accelerationOr(axis.limits()), 5) + "; " + condition);
        figure(f.lock() == Lock.POSITION ? "Falls behind by" : "Way lost", significant(theory.lost(), 4), unit, "v² ÷ 2a; " + condition + share(theory.lost()));
        if (f.lock() == Lock.POSITION) {
            figure("Locked after", seconds(theory.locked()), "s", "up to speed, then made up at the catch-up limit, then the straight line of the gain down to the phase window");
            figure("A pitch is made up in", seconds(FollowTheory.makesUp(axis, f.ratio().followerPitch().doubleValue())), "s", "pitch ÷ c + c ÷ a with the catch-up limit c");
            if (f.catchUp() == 0) {
                finding(Severity.FAULT, "The catch-up limit is 0.", "What is lost while it comes up to speed is never made up: it may not be faster than its master.",
                        Mend.set("Let it catch up with a tenth of its speed", at + "/catchUp", rounded(CATCH_UP_SHARE * axis.limits().max().speed())));
            } else if (speed + f.catchUp() > f.speedOr(axis.limits()) * (1 + 1e-9)) {
                double left = Math.max(0, f.speedOr(axis.limits()) - speed);
                finding(Severity.WARNING, "It cannot catch up as fast as the limit says.", "At the default speed of " + master.name() + " there are " + significant(left, 4) + " " + per(unit) + " left, the catch-up limit is " + significant(f.catchUp(), 4) + ".",
                        left > 0 ? Mend.set("Take what is left", at + "/catchUp", rounded(left)) : null);
            }
        }
        double brake = Math.min(f.accelerationOr(axis.limits()), f.decelerationOr(axis.limits()));
        double without = rueda.profile.FollowerLock.gap(speed, f.gain(), brake);
        figure("Gap without feed-forward", significant(without, 4), unit, "v ÷ k = " + significant(speed, 5) + " ÷ " + significant(f.gain(), 4) + (speed > brake / f.gain() ? "; beyond a/k the square root: v²/2a + a/2k²" : "") + share(without));
        figure("Gap with " + significant(f.feedForward(), 3) + " % feed-forward", significant(theory.gap(), 4), unit, "(1 − share) × v ÷ k" + share(theory.gap()));
        double window = Math.max(f.phaseWindow(), 0.5 / axis.scale().wireUnitsPerUnit());
        if (f.lock() != Lock.LOOSE && theory.gap() > window) {
            finding(Severity.WARNING, "It stays behind by more than the phase window.", significant(theory.gap(), 4) + " " + unit + " at the default speed of " + master.name() + ", the window is " + significant(window, 3) + " " + unit + ".", Mend.set("Feed all of the speed forward", at + "/feedForward", 100.0));
        }
        double late = Math.abs(ratio) * master.acceleration() * f.filter() * 1e-3 / f.gain();
        if (f.filter() > 0) {
            figure("Behind while " + master.name() + " accelerates", significant(late, 3), unit, "ratio × acceleration × filter ÷ k");
            if (f.lock() != Lock.LOOSE && late > window) {
                finding(Severity.WARNING, "The filter is longer than the phase allows.", "While " + master.name() + " accelerates it stays " + significant(late, 3) + " " + unit + " behind, the window is " + significant(window, 3) + " " + unit + ".", Mend.set("Filter nothing", at + "/filter", 0.0));
            }
        }
    }

    private static String seconds(double value) {
        return Double.isFinite(value) ? significant(value, 4) : "never";
    }

    private String share(double way) {
        return " = " + significant(100 * way / Math.abs(f.ratio().followerPitch().doubleValue()), 3) + " % of a pitch";
    }

    private static double rounded(double value) {
        return new BigDecimal(value).round(new MathContext(2, RoundingMode.DOWN)).doubleValue();
    }

    /** From the master's value to the follower's setpoint, s. @param cycle bus cycle, s */
    public static double delay(Source source, double cycle) {
        return source == Source.ENCODER ? SUB_STEP : delayCycles(source) * cycle;
    }

    /** Bus cycles from the master's value to the follower's setpoint. @return 0 for its setpoint, 1 for its actual position, which was measured at the end of the last cycle */
    public static int delayCycles(Source source) {
        return source == Source.ACTUAL ? 1 : 0;
    }

    private void delay() {
        double cycle = machine.bus().cycleMicros() * 1e-6;
        double dead = delay(f.source(), cycle);
        figure("Delay behind " + master.name(), dead == 0 ? "0" : significant(dead * 1000, 3), "ms", switch (f.source()) {
            case ACTUAL -> "1 bus cycle: measured at the end of one, followed by the setpoint of the next";
            case ENCODER -> "1 sub-step of the drive: read at the end of one, followed in the next";
            default -> "both setpoints go out in the same bus cycle";
        });
        if (dead > 0) {
            figure("Behind by the delay", significant(dead * speed, 3), unit, "speed × delay" + share(dead * speed));
            figure("What the prediction leaves of it", significant(Math.abs(dead - f.prediction() * 1e-3) * speed, 3), unit, "speed × (delay − prediction), at constant speed");
            if (f.prediction() == 0 && dead * speed > Math.max(f.phaseWindow(), 1e-12)) {
                finding(Severity.WARNING, "The delay costs more than the phase window.", "At the default speed of " + master.name() + " it is " + significant(dead * speed, 3) + " " + unit + " behind.", Mend.set("Foresee that much", at + "/prediction", dead * 1000));
            }
        }
        if (f.source() != Source.ENCODER) {
            figure("Without synchronised clocks up to", significant(cycle * speed, 3), unit, "speed × bus cycle: the setpoints of two drives whose clocks are apart are up to one cycle apart in age" + share(cycle * speed));
        }
        double behind = FollowTheory.loadBehind(axis, master.axis(), ratio, masterSpeed, cycle);
        figure("Load behind load", significant(Math.abs(behind), 3), unit, "gap + speed × (delay − prediction) + following error of its own loop" + (dead == 0 && master.axis() != null ? " − that of " + master.name() + " × ratio" : "") + ", at the default speed of " + master.name() + share(Math.abs(behind)));
        if (dead == 0 && f.prediction() > 0) {
            finding(Severity.WARNING, "Nothing has to be foreseen.", "Setpoints go out together; the prediction puts the follower " + significant(f.prediction() * 1e-3 * speed, 3) + " " + unit + " ahead.", Mend.set("Foresee nothing", at + "/prediction", 0.0));
        }
    }

    private void phase() {
        if (f.trimSpeed() > 0) {
            figure("Trim moves the phase by", significant(f.trimSpeed(), 4), per(unit), significant(100 * f.trimSpeed() / Math.abs(f.ratio().followerPitch().doubleValue()), 3) + " % of a pitch each second");
        }
        boolean encoder = f.source() == Source.ENCODER;
        if (f.trimDistance() > 0) {
            figure("Trim by an edge", significant(f.trimDistance(), 4), unit, significant(100 * f.trimDistance() / Math.abs(f.ratio().followerPitch().doubleValue()), 3) + " % of a pitch at each edge of a trim input");
            if (f.trimSpeed() == 0) {
                finding(Severity.WARNING, "The trim has no speed.", "Its edges move nothing.", Mend.set("Trim with a fiftieth of its speed", at + "/trimSpeed", rounded(TRIM_SHARE * axis.limits().max().speed())));
            }
        }
        watched(encoder);
        double own = encoder ? axis.scale().unitsPerCount().toDouble() : 1.0 / axis.scale().wireUnitsPerUnit();
        figure("Ripple from the resolution", significant(0.5 * Math.max(own, Math.abs(ratio) * master.grain()), 2), unit, "half a " + (encoder ? "count" : "wire unit") + " of the follower, or of the master × ratio");
    }

    private void watched(boolean encoder) {
        FollowWatch w = f.watch();
        if (encoder && f.encoder().indexed()) {
            figure("Lost counts are told from", Long.toString(Math.max(1, w.lostCounts()) + 1), "counts", "at the next index pulse: " + significant((Math.max(1, w.lostCounts()) + 1) * Math.abs(ratio) * master.grain(), 3) + " " + unit + " of the follower");
        }
        if (w.phaseLimit() == 0) {
            return;
        }
        figure("Phase is told from", significant(w.phaseLimit(), 4), unit, "besides the gap of the gain, once it has been locked" + share(w.phaseLimit()));
        if (w.phaseLimit() < f.phaseWindow()) {
            finding(Severity.WARNING, "The limit of the phase lies inside its window.", "It counts as locked up to " + significant(f.phaseWindow(), 3) + " " + unit + ", and " + w.phase().words() + " from " + significant(w.phaseLimit(), 3) + " " + unit + ".", Mend.set("Set the limit to twice the window", at + "/watch/phaseLimit", 2 * f.phaseWindow()));
        }
        double late = Math.abs(ratio) * master.acceleration() * f.filter() * 1e-3 / f.gain();
        if (late > w.phaseLimit() && w.phaseLimit() >= f.phaseWindow()) {
            finding(Severity.WARNING, "The phase leaves its limit whenever " + master.name() + " accelerates.", "The filter puts it " + significant(late, 3) + " " + unit + " behind then, the limit is " + significant(w.phaseLimit(), 3) + " " + unit + ".", Mend.set("Filter nothing", at + "/filter", 0.0));
        }
    }

    private void drift() {
        Ratio meant = f.ratio().meant();
        double hour = drift(exact, meant);
        figure("Drift an hour", hour == 0 ? "0" : significant(hour, 4), unit, hour == 0 ? "the ratio is exactly that of the pitches, " + meant : "(" + exact + " − " + meant + ") × " + significant(masterSpeed, 4) + " " + per(masterUnit) + " × 3600 s");
        Ratio three = Ratio.of(new BigDecimal(meant.numerator()).divide(new BigDecimal(meant.denominator()), EXACTLY).setScale(3, RoundingMode.HALF_UP));
        double threeHour = drift(three, meant);
        figure("With three decimals", threeHour == 0 ? "0" : significant(threeHour, 4), unit + " an hour", "what " + significant(three.toDouble(), 6) + " would drift by");
        if (Long.signum(exact.numerator()) != Long.signum(meant.numerator())) {
            finding(Severity.FAULT, "It turns the wrong way.", "The pitches go " + (meant.numerator() > 0 ? "the same way" : "opposite ways") + ", the ratio does not.", sense());
        } else if (hour != 0) {
            finding(Severity.WARNING, "The ratio is not that of the pitches.", "The phase drifts by " + significant(Math.abs(hour), 4) + " " + unit + " an hour at the default speed of " + master.name() + ".", Mend.set("Take the ratio of the pitches", at + "/ratio/form", Form.PITCHES.name()));
        }
    }

    /** What the phase drifts by in an hour at the master's default speed, units. */
    private double drift(Ratio is, Ratio meant) {
        BigDecimal difference = new BigDecimal(is.numerator()).multiply(new BigDecimal(meant.denominator())).subtract(new BigDecimal(meant.numerator()).multiply(new BigDecimal(is.denominator())));
        return difference.divide(new BigDecimal(is.denominator()).multiply(new BigDecimal(meant.denominator())), EXACTLY).doubleValue() * masterSpeed * SECONDS_AN_HOUR;
    }

    private Mend sense() {
        return switch (f.ratio().form()) {
            case TURNS -> Mend.set("Turn the ratio round", at + "/ratio/out", -f.ratio().out());
            case DECIMAL -> Mend.set("Turn the ratio round", at + "/ratio/decimal", f.ratio().decimal().negate());
            case PITCHES -> null;
        };
    }
}
