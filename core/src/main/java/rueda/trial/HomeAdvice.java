package rueda.trial;

import java.util.Set;
import static rueda.advice.Numbers.count;
import static rueda.advice.Numbers.fixed;
import static rueda.advice.Numbers.significant;

import rueda.advice.Advice;
import rueda.advice.AxisAdvice;
import rueda.advice.Finding.Mend;
import rueda.advice.Finding.Severity;
import rueda.bench.Bench;
import rueda.drive.HomingMethod;
import rueda.drive.HomingMethod.Leg;
import rueda.drive.HomingMethod.Sensor;
import rueda.drive.HomingMethod.Until;
import rueda.machine.Axis;
import rueda.machine.Encoder;
import rueda.machine.Homing;
import rueda.machine.Homing.AtPowerUp;
import rueda.machine.MotorSide;
import rueda.machine.Terminal.Function;
import rueda.machine.Travel;

/** Consequences of the homing entries, read off searches carried out on a bench. */
public final class HomeAdvice extends AxisAdvice {

    /** A hard stop brings the axis to rest within about this time, s (our estimate, for how hard it is hit). */
    private static final double IMPACT = 0.005;

    private final Homing homing;
    private final HomingMethod method;
    private final HomingTrial.Result result;
    private final HomingTrial.Result worst;
    private final double turn;

    private HomeAdvice(Axis axis, HomingTrial.Result result, HomingTrial.Result worst, String pointer) {
        super("home", axis, pointer);
        this.homing = axis.homing();
        this.method = HomingMethod.of(homing.method());
        this.result = result;
        this.worst = worst;
        this.turn = axis.scale().unitsPerMotorTurn().toDouble();
    }

    /**
     * @param result  a search from the parked place
     * @param worst   the slowest search, or one that failed
     * @param pointer JSON pointer of the axis in the document
     */
    public static Advice of(Axis axis, HomingTrial.Result result, HomingTrial.Result worst, String pointer) {
        HomeAdvice advice = new HomeAdvice(axis, result, worst, pointer);
        advice.times();
        advice.cam();
        advice.hardStop();
        advice.ends();
        advice.repeatability();
        advice.sent();
        advice.found();
        advice.atPowerUp();
        return advice.advice();
    }

    /** The edge of the switch that the last crossing goes over, units from the negative hard stop; NaN when there is none. */
    public static double edge(Axis axis) {
        HomingMethod method = HomingMethod.of(axis.homing().method());
        Travel travel = axis.travel();
        Leg crossing = method.legs().stream().filter(l -> l.creep() && l.until() != Until.INDEX).findFirst().orElse(null);
        if (crossing == null) {
            return Double.NaN;
        }
        return switch (method.sensor()) {
            case NEGATIVE_LIMIT -> travel.negativeLimit();
            case POSITIVE_LIMIT -> travel.positiveLimit();
            case CAM -> crossing.until() == Until.SENSOR_OFF == crossing.direction() > 0 ? travel.camTo() : travel.camFrom();
            case NONE -> Double.NaN;
        };
    }

    private void times() {
        figure("Time from here", fixed(result.duration(), 2), "s", "searched on the bench from the parked place");
        figure("Time, worst start", fixed(worst.duration(), 2), "s", "longest of four searches: parked, both sides of the cam, at the ends or on the cam");
        if (method.usesIndex()) {
            figure("Index pulse every", significant(turn, 5), unit, "one motor turn");
        }
    }

    private void cam() {
        if (method.sensor() == Sensor.NONE) {
            return;
        }
        double edge = edge(axis);
        if (method.usesIndex() && result.found()) {
            double way = Math.abs(result.zero() - edge);
            double share = axis.endless() ? Math.IEEEremainder(way, axis.travel().length()) / turn : way / turn;
            share = Math.abs(share);
            figure("Switch edge to index", fixed(share, 2), "turns", "|zero − edge| ÷ " + significant(turn, 5) + " " + unit);
            boolean near = share < 0.1 || share > 0.9;
            finding(near ? Severity.WARNING : Severity.GOOD, near ? "The index pulse lies near the edge of the switch." : "The zero cannot jump by one turn.",
                    near ? "A little play in the switch and the zero jumps by one motor turn, " + significant(turn, 4) + " " + unit + ". Move the switch by about half a turn."
                            : "The index pulse is " + fixed(Math.min(share, 1 - share), 2) + " turns away from a wrong choice.", null);
        }
        double overrun = homing.searchSpeed() * homing.searchSpeed() / 2 / homing.acceleration();
        if (method.sensor() != Sensor.CAM) {
            double room = method.sensor() == Sensor.NEGATIVE_LIMIT ? axis.travel().negativeLimit() : axis.travel().length() - axis.travel().positiveLimit();
            figure("Overrun past the switch", fixed(overrun, 1) + " of " + fixed(room, 0), unit, "v² ÷ 2a, of the way to the hard stop");
            if (overrun > room) {
                slower("The axis hits the hard stop behind the switch.", "It needs " + significant(overrun, 3) + " " + unit + " to stop and has " + significant(room, 3) + " " + unit + ".", room, Severity.FAULT);
            }
            return;
        }
        double length = axis.travel().camTo() - axis.travel().camFrom();
        figure("Overrun into the cam", fixed(overrun, 1) + " of " + fixed(length, 0), unit, "v² ÷ 2a = " + significant(overrun, 3) + " " + unit);
        if (length <= 0) {
            finding(Severity.FAULT, "There is no reference cam.", "This method looks for one.", Mend.set("Take the place where the axis stands", pointer + "/homing/method", 37));
        } else if (overrun > length) {
            slower("The cam is too short for the search speed.", "The axis needs " + significant(overrun, 3) + " " + unit + " to stop and runs through the cam of "
                    + significant(length, 3) + " " + unit + ": it searches longer, and a slow switch may miss it.", length, Severity.WARNING);
        }
    }

    private void slower(String title, String consequence, double room, Severity severity) {
        double advised = Math.floor(Math.sqrt(1.6 * room * homing.acceleration()));
        finding(severity, title, consequence, advised >= 1 ? Mend.set("Search at " + fixed(advised, 0) + " " + unit + "/s", pointer + "/homing/searchSpeed", advised) : null);
    }

    private void hardStop() {
        if (method.legs().isEmpty() || method.legs().get(0).until() != Until.HARD_STOP) {
            return;
        }
        Function limit = method.legs().get(0).direction() < 0 ? Function.NEGATIVE_LIMIT : Function.POSITIVE_LIMIT;
        if (axis.wiring().terminal(limit).isPresent()) {
            finding(Severity.FAULT, "The " + limit.words() + " switch stands before the hard stop.", "It ends the search before the stop is reached: take the switch itself as the reference.",
                    Mend.set("Search the switch instead", pointer + "/homing/method", method.legs().get(0).direction() < 0 ? 1 : 2));
        }
        MotorSide side = axis.motorSide();
        double torque = homing.stopTorque() / 100 * axis.motor().ratedTorque();
        double direction = method.legs().get(0).direction();
        double running = Math.abs(side.friction(homing.searchSpeed()) + side.gravity() * direction);
        figure("Torque at the stop", significant(torque, 3), "N·m", "share of the rated torque");
        figure("Torque of the search", significant(running, 3), "N·m", "friction" + (side.gravity() != 0 ? " and weight" : "") + " at the search speed");
        if (torque < 1.3 * running) {
            double advised = Math.ceil(160 * running / axis.motor().ratedTorque());
            finding(Severity.FAULT, "Friction alone could be taken for the stop.", "The search itself needs " + significant(running, 3) + " N·m; the stop counts at "
                    + significant(torque, 3) + " N·m.", Mend.set("Take " + fixed(advised, 0) + " % of the rated torque", pointer + "/homing/stopTorque", advised));
        }
        double blow = side.inertia() * homing.searchSpeed() / side.unitsPerRadian() / IMPACT;
        figure("Torque of the impact", significant(blow, 3), "N·m", "J·ω ÷ 5 ms, about");
        if (blow > axis.motor().peakTorque()) {
            double advised = Math.floor(homing.searchSpeed() * axis.motor().peakTorque() / blow * 8) / 10;
            finding(Severity.WARNING, "The axis hits the stop too fast.", "Stopping the masses there takes about " + significant(blow, 3) + " N·m, more than the motor itself could give.",
                    advised > 0 ? Mend.set("Search at " + significant(advised, 3) + " " + unit + "/s", pointer + "/homing/searchSpeed", advised) : null);
        }
    }

    private void repeatability() {
        double subStep = Bench.SUB_STEP_NANOS * 1e-9;
        boolean searches = !method.legs().isEmpty();
        if (searches && method.usesIndex()) {
            figure("Index repeats within", "±" + significant(axis.scale().unitsPerCount().toDouble() / 2, 3), unit, "half an encoder count");
        }
        if (method.sensor() != Sensor.NONE) {
            figure(method.usesIndex() ? "Edge alone would repeat within" : "Switch edge repeats within", "±" + significant(homing.creepSpeed() * subStep / 2, 3), unit,
                    "creep speed × " + Bench.SUB_STEP_NANOS / 1000 + " µs sampling ÷ 2");
        }
        if (homing.creepSpeed() > homing.searchSpeed()) {
            finding(Severity.WARNING, "Creep is faster than search.", "The zero would be taken less exactly than the switch.",
                    Mend.set("Creep at a tenth of the search speed", pointer + "/homing/creepSpeed", homing.searchSpeed() / 10));
        }
        if (!searches) {
            finding(Severity.WARNING, "Zero is wherever the axis stands.", "After every power-up someone must put it in the right place first.", null);
        }
    }

    /** Methods for an axis with ends, on one that has none. */
    private void ends() {
        if (axis.endless() && method.needsEnds()) {
            int instead = homing.method() > 16 ? 27 : homing.method() > 0 ? 11 : 37;
            boolean cam = axis.travel().camTo() > axis.travel().camFrom();
            finding(Severity.FAULT, "This method looks for an end, and the axis has none.", "An endless axis has neither limit switches nor hard stops: the drive refuses the search.",
                    Mend.set(cam && instead != 37 ? "Search the reference cam" : "Take the place where the axis stands", pointer + "/homing/method", cam ? instead : 37));
        }
    }

    private void sent() {
        if (result.found()) {
            figure("Comes to rest", fixed(result.rest() - result.zero(), 3), unit + " past zero", "place of rest − place of zero");
        }
        figure("Sent to drive, 6098h", Integer.toString(homing.method()).replace('-', '\u2212'), "", "homing method");
        figure("607Ch, home offset", count(-axis.scale().wireFromUnits(homing.zeroOffset())), "wire units", "zero position = home position + home offset (IEC 61800-7-201): minus the position the place found is given");
        figure("6099h:01 / :02", count(axis.scale().wireFromUnits(homing.searchSpeed())) + " / " + count(axis.scale().wireFromUnits(homing.creepSpeed())), "",
                "search and creep speed in wire units per second");
    }

    /** What the axis knows after a restart, and whether it is true. */
    private void atPowerUp() {
        String at = pointer + "/homing/";
        boolean motor = homing.atPowerUp() == AtPowerUp.MOTOR_ENCODER;
        if (homing.atPowerUp() == AtPowerUp.NOTHING) {
            figure("After a restart", homing.onFirstEnable() ? "searches when enabled" : "not referenced", "", "no encoder is taken as the position at power-up");
            return;
        }
        Encoder encoder = motor ? axis.encoder() : axis.loadEncoder().encoder();
        String which = motor ? "motor encoder" : "encoder on the load";
        Mend search = Mend.set("Search after every power-up", at + "atPowerUp", AtPowerUp.NOTHING);
        if (!motor && !axis.loadEncoderUsed()) {
            finding(Severity.FAULT, "There is no encoder on the load to take the position from.", "It is entered in the stage Scale and enabled in the stage Wire.", search);
            return;
        }
        double perTurn = motor ? turn : axis.scale().feed().toDouble();
        double known = encoder.turnsKnown() * perTurn;
        double needed = axis.endless() ? axis.modulo().doubleValue() : axis.travel().length();
        figure("The encoder knows", significant(known, 6), unit, encoder.turnsKnown() + " turns × " + significant(perTurn, 5) + " " + unit);
        boolean fits = axis.endless() ? needed > 0 && known > 0 && Math.abs(Math.IEEEremainder(known, needed)) < 1e-9 * known : known >= needed;
        if (!fits) {
            finding(Severity.FAULT, "The " + which + " does not know where the axis is.", known == 0 ? "An incremental encoder knows nothing at power-up."
                    : axis.endless() ? "It repeats after " + significant(known, 5) + " " + unit + ", the axis after " + significant(needed, 5) + " " + unit + "."
                    : "It repeats after " + significant(known, 5) + " " + unit + " of " + significant(needed, 5) + " " + unit + " travel: the first move could be long and wrong.", search);
            return;
        }
        if (!result.found() || method.legs().isEmpty()) {
            return;
        }
        double advised = homing.zeroOffset() - result.zero();
        advised = axis.endless() ? advised - Math.floor(advised / needed) * needed : advised;
        double gap = homing.encoderOffset() - advised;
        gap = axis.endless() ? Math.IEEEremainder(gap, needed) : gap;
        figure("Encoder and search differ by", significant(gap, 3), unit, "position by the " + which + " − position by the search");
        double allowed = Math.max(axis.supervision().positionWindow(), perTurn / encoder.countsPerTurn());
        if (Math.abs(gap) > allowed) {
            double rounded = Math.rint(advised * axis.scale().wireUnitsPerUnit()) / axis.scale().wireUnitsPerUnit();
            finding(Severity.WARNING, "After a restart the zero lies elsewhere than after a search.", "By the " + which + " the axis stands " + significant(gap, 3) + " " + unit + " from where the search puts it.",
                    Mend.set("Take the offset of the search", at + "encoderOffset", rounded));
        }
    }

    private void found() {
        if (!worst.found()) {
            finding(Severity.FAULT, "From " + fixed(worst.start(), 0) + " " + unit + " the axis finds no zero.", worst.message(), null);
            return;
        }
        if (axis.endless()) {
            return;
        }
        if (axis.limits().softMin() > 0 || axis.limits().softMax() < 0) {
            finding(homing.thenToZero() ? Severity.FAULT : Severity.WARNING, "Position 0 lies outside the soft limits.", homing.thenToZero() ? "The axis would travel there after the search, and stops at the limit."
                    : "After a search the axis may stand where no move is allowed.", Mend.set("Let the axis have its 0", pointer + "/limits/" + (axis.limits().softMin() > 0 ? "softMin" : "softMax"), 0));
        }
        double lowest = axis.limits().softMin() - homing.zeroOffset() + result.zero();
        double highest = axis.limits().softMax() - homing.zeroOffset() + result.zero();
        if (lowest < axis.travel().negativeLimit() || highest > axis.travel().positiveLimit()) {
            boolean negative = lowest < axis.travel().negativeLimit();
            double edge = (negative ? axis.travel().negativeLimit() : axis.travel().positiveLimit()) - result.zero() + homing.zeroOffset();
            double advised = negative ? Math.ceil(edge / 5 + 1) * 5 : Math.floor(edge / 5 - 1) * 5;
            finding(Severity.WARNING, "The " + (negative ? "negative" : "positive") + " soft limit lies past the limit switch.",
                    "With this zero the switch is at " + fixed(edge, 1) + " " + unit + ", so the drive would stop with a fault first.",
                    Mend.set("Set it to " + fixed(advised, 0) + " " + unit, pointer + "/limits/" + (negative ? "softMin" : "softMax"), advised));
        }
    }
}
