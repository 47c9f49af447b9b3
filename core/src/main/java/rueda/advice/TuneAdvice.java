package rueda.advice;

import static rueda.advice.Numbers.significant;

import java.util.List;
import rueda.advice.Finding.Change;
import rueda.advice.Finding.Mend;
import rueda.advice.Finding.Severity;
import rueda.machine.Axis;
import rueda.machine.Control;
import rueda.machine.MotorSide;
import rueda.machine.Supervision;

/** Consequences of the gains: margins, following error, settling, resonance. */
public final class TuneAdvice extends AxisAdvice {

    /** Phase left in a loop that is neither sluggish nor rings (common practice, no source). */
    private static final double ENOUGH_PHASE = 40;
    private static final double LITTLE_PHASE = 25;
    /** Share of the rated torque that one encoder count may make (our choice). */
    private static final double NOISE = 0.15;
    private static final double SUB_STEP = 125e-6;

    private LinearModel.StepResponse response;

    private TuneAdvice(Axis axis, String pointer) {
        super("tune", axis, pointer);
    }

    /** @param pointer JSON pointer of the axis in the document */
    public static Advice of(Axis axis, String pointer) {
        TuneAdvice advice = new TuneAdvice(axis, pointer);
        advice.margins();
        advice.following();
        advice.resonance();
        advice.noise();
        advice.supervision();
        advice.loadData();
        if (advice.nothingFound()) {
            advice.finding(Severity.GOOD, "Both loops have phase to spare.", "The axis settles without ringing.", null);
        }
        return advice.advice();
    }

    private void margins() {
        LoopMargins velocity = LoopMargins.velocity(axis);
        LoopMargins position = LoopMargins.position(axis);
        figure("Velocity loop crosses at", significant(velocity.crossover(), 3), "Hz", "where |Kp·(1 + T/Ti ÷ (z − 1))·P| = 1; T sub-step, P motor and load as sampled");
        figure("Velocity loop, phase margin", significant(velocity.phaseMargin(), 3), "°", "180° + phase at the crossing; sampling costs one sub-step of 125 µs, the integral takes up the error after its use");
        figure("Velocity loop, gain margin", times(velocity.gainMargin()), "times", "1 ÷ gain where the phase passes −180°");
        figure("Position loop, phase margin", significant(position.phaseMargin(), 3), "°", "of Kv/s around the closed velocity loop");
        check("velocity", velocity);
        check("position", position);
    }

    private static String times(double margin) {
        return Double.isFinite(margin) ? significant(margin, 3) : "any";
    }

    private void check(String which, LoopMargins margins) {
        if (margins.phaseMargin() >= ENOUGH_PHASE && margins.gainMargin() > 2) {
            return;
        }
        Severity severity = margins.phaseMargin() < LITTLE_PHASE || margins.gainMargin() < 1.3 ? Severity.FAULT : Severity.WARNING;
        finding(severity, "The " + which + " loop has little phase left.", "With " + significant(margins.phaseMargin(), 2) + "° and a gain margin of " + significant(margins.gainMargin(), 2)
                + " it " + (severity == Severity.FAULT ? "rings or becomes unstable." : "overshoots and rings a little."), mend());
    }

    /** Gains by the identified or entered inertia. */
    private Mend mend() {
        return gains("Take gains that suit the inertia", proposed(axis), pointer);
    }

    static Mend gains(String label, Control proposed, String pointer) {
        return new Mend(label, List.of(new Change("replace", pointer + "/control/positionGain", proposed.positionGain()),
                new Change("replace", pointer + "/control/velocityGain", proposed.velocityGain()),
                new Change("replace", pointer + "/control/integralTime", proposed.integralTime())));
    }

    /** Gains for the inertia the axis has by its entries. */
    public static Control proposed(Axis axis) {
        return proposed(axis, axis.motorSide().inertia());
    }

    /**
     * Gains for an inertia: the velocity loop is made as fast as a phase margin of 50° and a gain margin of 2.5 allow, at
     * most 60 Hz; the integral follows four times slower, the position loop five times slower.
     *
     * @param inertia kg·m² at the motor shaft, motor and load together
     */
    public static Control proposed(Axis axis, double inertia) {
        Control now = axis.control();
        for (double frequency = 60; frequency > 0.5; frequency *= 0.93) {
            double bandwidth = 2 * Math.PI * frequency;
            Control tried = new Control(rounded(bandwidth / 5), rounded(inertia * bandwidth), rounded(4000 / bandwidth), now.feedForward(), now.torqueForward());
            Axis with = axis.withControl(tried);
            LoopMargins velocity = LoopMargins.velocity(with);
            LoopMargins position = LoopMargins.position(with);
            if (velocity.phaseMargin() >= 50 && velocity.gainMargin() >= 2.5 && position.phaseMargin() >= 50 && position.gainMargin() >= 2.5
                    && noise(axis, tried) <= NOISE) {
                return tried;
            }
        }
        return now;
    }

    private static double rounded(double value) {
        return Double.parseDouble(String.format(java.util.Locale.ROOT, "%.3g", value));
    }

    private void following() {
        Control control = axis.control();
        double speed = axis.limits().normal().speed();
        double gap = LinearModel.followingErrorAt(speed, control);
        figure("Following error at default speed", significant(gap, 3), unit, "speed ÷ Kv × (1 − feed-forward) − speed × 125 µs = " + significant(speed, 5) + " ÷ " + significant(control.positionGain(), 4) + " × "
                + significant(1 - control.feedForward(), 3) + " − " + significant(speed * SUB_STEP, 3) + "; the drive compares with the position at the beginning of a sub-step");
        response = LinearModel.stepResponse(axis);
        figure("Settles to 2 % in", Double.isNaN(response.settled()) ? "more than " + significant(LinearModel.LONGEST, 2) : significant(1000 * response.settled(), 3), Double.isNaN(response.settled()) ? "s" : "ms",
                "a step of the setpoint by linear theory of both loops, without feed-forward");
        double allowed = axis.supervision().allowedFollowingError(speed, axis.limits().max().speed());
        if (Math.abs(gap) > allowed) {
            finding(Severity.FAULT, "The following error leaves its window at default speed.", "It is " + significant(gap, 3) + " " + unit + " without enough feed-forward; allowed are "
                    + significant(allowed, 3) + " " + unit + ".", Mend.set("Feed the whole speed forward", pointer + "/control/feedForward", 1));
        }
    }

    /** Load data first: identification and tuning without them give a badly behaved axis (common practice, no source). */
    private void loadData() {
        for (String missing : axis.load().missing(axis.train().feed().linear())) {
            finding(Severity.FAULT, "Enter the " + missing + " of the load first.", "It stands at 0 in the stage Scale. Gains found without it do not fit the axis.", null);
        }
    }

    /** A position window that is too tight, or a dwell that is too long, never reports "done" (common practice, no source). */
    private void supervision() {
        Supervision s = axis.supervision();
        String at = pointer + "/supervision/";
        double count = axis.scale().unitsPerCount().toDouble();
        double wire = 1.0 / axis.scale().wireUnitsPerUnit();
        double least = Math.max(count, wire);
        boolean slow = Double.isNaN(response.overshoot());
        figure("A step overshoots by", slow ? "not within " + significant(LinearModel.LONGEST, 2) : significant(100 * response.overshoot(), 2), slow ? "s" : "%", "linear theory of both loops, without feed-forward");
        figure("Following error allowed", significant(s.allowedFollowingError(axis.limits().normal().speed(), axis.limits().max().speed()), 3), unit, "at default speed: from " + significant(s.followingError(), 3) + " up to "
                + significant(s.followingErrorAtSpeed(), 3) + " " + unit + " in a straight line from " + significant(s.followingFrom(), 3) + " to " + significant(axis.limits().max().speed(), 4) + " " + unit + "/s");
        figure("Position window", significant(s.positionWindow() / count, 3), "counts", "window ÷ " + significant(count, 3) + " " + unit + " a count");
        if (s.positionWindow() < 2 * least) {
            finding(Severity.FAULT, "The position window is too tight.", "It is below two steps of " + (count > wire ? "the encoder" : "the wire unit") + " of " + significant(least, 3) + " " + unit + ": the axis may never report that it has arrived.",
                    Mend.set("Take ten of them", at + "positionWindow", Double.parseDouble(String.format(java.util.Locale.ROOT, "%.2g", 10 * least))));
        }
        if (s.positionTolerance() > 0 && s.positionDwell() > s.positionTolerance()) {
            finding(Severity.FAULT, "The tolerance time ends before the dwell.", "After " + s.positionTolerance() + " ms the drive warns; in position takes at least " + s.positionDwell() + " ms.",
                    Mend.set("Allow 100 times the dwell", at + "positionTolerance", Math.min(60_000, 100 * s.positionDwell())));
        }
        if (s.standstillWindow() < 2 * least) {
            finding(Severity.WARNING, "The standstill window is too tight.", "It is below two steps of " + significant(least, 3) + " " + unit + ": a standing axis may be taken for a moving one.",
                    Mend.set("Take that of the position", at + "standstillWindow", Math.max(s.positionWindow(), 10 * least)));
        }
    }

    /** Share of the rated torque that one encoder count in one sub-step makes through the velocity loop. */
    private static double noise(Axis axis, Control control) {
        return control.velocityGain() * 2 * Math.PI / axis.encoder().countsPerTurn() / SUB_STEP / axis.motor().ratedTorque();
    }

    private void noise() {
        double share = noise(axis, axis.control());
        figure("One encoder count makes", significant(100 * share, 3), "% of rated torque", "Kp × 2π ÷ counts ÷ 125 µs ÷ rated torque");
        if (share > 2 * NOISE) {
            finding(Severity.WARNING, "The encoder is too coarse for this velocity gain.", "Each count kicks the motor with " + significant(100 * share, 3) + " % of its rated torque: it growls and gets warm.", mend());
        }
    }

    /** Two-mass system: ω_a = √(c/J_l), ω_r = √(c·(1/J_m + 1/J_l)) (textbooks of controlled electric drives). */
    private void resonance() {
        double stiffness = axis.load().stiffness();
        if (stiffness == 0) {
            return;
        }
        MotorSide side = axis.motorSide();
        figure("Antiresonance", significant(Math.sqrt(stiffness / side.loadInertia()) / (2 * Math.PI), 4), "Hz", "√(c ÷ J load) ÷ 2π");
        figure("Resonance", significant(Math.sqrt(stiffness * (1 / side.motorInertia() + 1 / side.loadInertia())) / (2 * Math.PI), 4), "Hz", "√(c·(1/J motor + 1/J load)) ÷ 2π");
        if (axis.load().backlash() > 0) {
            figure("Backlash", significant(axis.load().backlash(), 3), unit, "the load may stand so far from where the motor is");
        }
    }
}
