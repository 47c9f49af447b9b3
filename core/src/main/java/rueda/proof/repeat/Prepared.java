package rueda.proof.repeat;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rueda.bench.Stand;
import rueda.bench.Stand.Disturbance;
import rueda.machine.Axis;
import rueda.machine.Circumstance;
import rueda.machine.Condition;
import rueda.machine.Control;
import rueda.machine.Load;
import rueda.machine.Machine;
import rueda.machine.Motor;
import rueda.machine.Proof;
import rueda.machine.ScriptStep;
import rueda.machine.Travel;

/**
 * A case made ready to run.
 *
 * @param machine as its drives are set
 * @param stand   what really stands there
 * @param proof   with its script as it is in this case
 */
public record Prepared(Machine machine, Stand stand, Proof proof) {

    public static Prepared of(Machine machine, Proof proof, Case one) {
        Working working = new Working(machine, proof);
        for (int c = 0; c < proof.conditions().size(); c++) {
            if (!Double.isNaN(one.values()[c])) {
                working.change(proof.conditions().get(c), one.values()[c]);
            }
        }
        if (one.happening() != null) {
            working.script.add(one.happening());
        }
        return new Prepared(machine.withAxes(working.drives), new Stand(working.axes, working.disturbed, working.jitter, proof.plan().seed()), proof.withScript(working.script));
    }

    /** What a value of a condition is called, such as “mass of the load of Shuttle 190 kg”. */
    public static String words(Machine machine, Proof proof, Condition condition, double value) {
        String of = condition.axis() == null ? "" : " of " + condition.axis();
        if (condition.of() == Circumstance.MISTAKE) {
            return condition.axis() + ": " + condition.mistakes().get((int) value).words();
        }
        if (condition.of() == Circumstance.MOMENT) {
            return String.format(Locale.ROOT, "sentence %d of the script %s s", condition.sentence() + 1, number(value)) + (proof.script().get(condition.sentence()).start() == ScriptStep.Start.AT ? "" : " later");
        }
        return condition.of().called() + of + " " + value(machine, condition, value);
    }

    /** A value of a condition with its unit, or what is wrong. */
    static String value(Machine machine, Condition condition, double value) {
        return condition.of() == Circumstance.MISTAKE ? condition.mistakes().get((int) value).words() : (number(value) + " " + unit(machine, condition)).strip();
    }

    /** Unit of a condition's values. */
    public static String unit(Machine machine, Condition condition) {
        return condition.of().unit().replaceFirst("^u$", condition.axis() == null ? "" : machine.axis(condition.axis()).map(axis -> axis.unit().symbol()).orElse(""));
    }

    /** What is other in a case, in words; “as the document says” where nothing is. */
    public static String words(Machine machine, Proof proof, Case one) {
        List<String> words = new ArrayList<>();
        for (int c = 0; c < proof.conditions().size(); c++) {
            if (!Double.isNaN(one.values()[c])) {
                words.add(words(machine, proof, proof.conditions().get(c), one.values()[c]));
            }
        }
        if (one.happening() != null) {
            words.add(words(one.happening()) + " at " + number(one.happening().time()) + " s");
        }
        return words.isEmpty() ? "as the document says" : String.join(", ", words);
    }

    /** What happens at any moment, shortly. */
    static String words(ScriptStep happening) {
        return switch (happening.does()) {
            case STOP -> "stop";
            case ASK -> happening.request();
            default -> "power lost";
        };
    }

    static String number(double value) {
        return value == 0 ? "0" : new BigDecimal(value, new MathContext(4)).stripTrailingZeros().toPlainString();
    }

    /** Lists that are changed one after the other. */
    private static final class Working {
        private final Machine machine;
        private final List<Axis> drives;
        private final List<Axis> axes;
        private final List<Disturbance> disturbed;
        private final List<ScriptStep> script;
        private long jitter;

        Working(Machine machine, Proof proof) {
            this.machine = machine;
            drives = new ArrayList<>(machine.axes());
            Stand sound = Stand.of(machine);
            axes = new ArrayList<>(sound.axes());
            disturbed = new ArrayList<>(sound.disturbed());
            script = new ArrayList<>(proof.script());
        }

        void change(Condition condition, double value) {
            if (condition.of() == Circumstance.MOMENT) {
                script.set(condition.sentence(), script.get(condition.sentence()).withTime(value));
                return;
            }
            if (condition.of() == Circumstance.TASK_JITTER) {
                jitter = Math.round(value * 1000);
                return;
            }
            int i = number(condition.axis());
            switch (condition.of()) {
                case MISTAKE -> script.add(ScriptStep.breaks(condition.axis(), condition.mistakes().get((int) value)));
                case POSITION_GAIN, VELOCITY_GAIN -> drives.set(i, driven(drives.get(i), condition.of(), value / 100));
                case INDEX, ENCODER_NOISE, CLOCK, FRAMES_LOST -> disturbed.set(i, disturbed(disturbed.get(i), condition.of(), value));
                default -> axes.set(i, stands(axes.get(i), condition.of(), value));
            }
        }

        private int number(String axis) {
            for (int i = 0; i < machine.axes().size(); i++) {
                if (machine.axes().get(i).name().equalsIgnoreCase(axis)) {
                    return i;
                }
            }
            throw new IllegalArgumentException("There is no axis " + axis);
        }

        private static Axis driven(Axis axis, Circumstance of, double share) {
            Control c = axis.control();
            return axis.withControl(of == Circumstance.POSITION_GAIN ? new Control(c.positionGain() * share, c.velocityGain(), c.integralTime(), c.feedForward(), c.torqueForward())
                    : new Control(c.positionGain(), c.velocityGain() * share, c.integralTime(), c.feedForward(), c.torqueForward()));
        }

        private static Disturbance disturbed(Disturbance d, Circumstance of, double value) {
            return switch (of) {
                case INDEX -> new Disturbance(value / 360, d.encoderNoise(), d.clock(), d.framesLost());
                case ENCODER_NOISE -> new Disturbance(d.encoderTurned(), value, d.clock(), d.framesLost());
                case CLOCK -> new Disturbance(d.encoderTurned(), d.encoderNoise(), value, d.framesLost());
                default -> new Disturbance(d.encoderTurned(), d.encoderNoise(), d.clock(), value / 100);
            };
        }

        private static Axis stands(Axis axis, Circumstance of, double value) {
            Load l = axis.load();
            Motor m = axis.motor();
            Travel t = axis.travel();
            return switch (of) {
                case MASS -> axis.withLoad(new Load(value, l.inertia(), l.coulomb(), l.viscous(), l.slope(), l.stiffness(), l.damping(), l.backlash()));
                case INERTIA -> axis.withLoad(new Load(l.mass(), value, l.coulomb(), l.viscous(), l.slope(), l.stiffness(), l.damping(), l.backlash()));
                case FRICTION -> axis.withLoad(l.withFriction(l.coulomb() * value / 100, l.viscous() * value / 100));
                case STIFFNESS -> axis.withLoad(new Load(l.mass(), l.inertia(), l.coulomb(), l.viscous(), l.slope(), l.stiffness() * value / 100, l.damping(), l.backlash()));
                case PLAY -> axis.withLoad(new Load(l.mass(), l.inertia(), l.coulomb(), l.viscous(), l.slope(), l.stiffness(), l.damping(), value));
                case SLOPE -> axis.withLoad(new Load(l.mass(), l.inertia(), l.coulomb(), l.viscous(), value, l.stiffness(), l.damping(), l.backlash()));
                case TORQUE -> axis.withMotor(new Motor(m.inertia(), m.ratedTorque() * value / 100, m.peakTorque() * value / 100, m.ratedSpeed(), m.maxSpeed(), m.torqueAtMaxSpeed() * value / 100));
                case CAM -> axis.withTravel(new Travel(t.length(), t.negativeLimit(), t.positiveLimit(), t.camFrom() + value, t.camTo() + value, t.parkedAt()));
                case LIMIT_SWITCHES -> axis.withTravel(new Travel(t.length(), t.negativeLimit() + value, t.positiveLimit() - value, t.camFrom(), t.camTo(), t.parkedAt()));
                case START -> axis.withTravel(new Travel(t.length(), t.negativeLimit(), t.positiveLimit(), t.camFrom(), t.camTo(), value));
                default -> throw new IllegalArgumentException(of.name());
            };
        }
    }
}
