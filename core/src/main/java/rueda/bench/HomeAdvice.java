package rueda.bench;

import static rueda.advice.Numbers.count;
import static rueda.advice.Numbers.fixed;
import static rueda.advice.Numbers.significant;

import java.util.ArrayList;
import java.util.List;
import rueda.advice.Advice;
import rueda.advice.Figure;
import rueda.advice.Finding;
import rueda.machine.Axis;
import rueda.machine.Machine;

/** Consequences of the homing entries, read off searches carried out on a bench. */
public final class HomeAdvice {

    private HomeAdvice() {
    }

    /**
     * @param result  a search from the parked place
     * @param worst   the slowest search
     * @param pointer JSON pointer of the axis in the document
     */
    public static Advice of(Machine machine, Axis axis, HomingTrial.Result result, HomingTrial.Result worst, String pointer) {
        return new Advice(figures(machine, axis, result, worst), findings(axis, result, worst, pointer));
    }

    private static List<Figure> figures(Machine machine, Axis axis, HomingTrial.Result result, HomingTrial.Result worst) {
        String unit = axis.unit().symbol();
        Axis.Homing homing = axis.homing();
        double turn = axis.scale().unitsPerMotorTurn().toDouble();
        double subStep = Bench.SUB_STEP_NANOS * 1e-9;
        List<Figure> figures = new ArrayList<>();
        figures.add(new Figure("Time from here", fixed(result.duration(), 2), "s", "searched on the bench from the parked place"));
        figures.add(new Figure("Time, worst start", fixed(worst.duration(), 2), "s", "longest of four searches: parked, far end, below the cam, on the limit switch"));
        if (homing.method() == 11) {
            figures.add(new Figure("Cam edge to index", fixed((result.zero() - axis.travel().camTo()) / turn, 2), "turns", "(zero − upper cam edge) ÷ " + significant(turn, 5) + " " + unit));
            double turnPoint = result.path().isEmpty() ? axis.travel().camTo() : result.path().get(0).to();
            double overrun = Math.max(0, axis.travel().camTo() - turnPoint);
            figures.add(new Figure("Overrun into the cam", fixed(overrun, 1) + " of " + fixed(axis.travel().camTo() - axis.travel().camFrom(), 0), unit,
                    "about v² ÷ 2a = " + significant(homing.searchSpeed() * homing.searchSpeed() / 2 / homing.acceleration(), 3) + " " + unit));
            figures.add(new Figure("Index pulse every", significant(turn, 5), unit, "one motor turn"));
        }
        if (homing.method() != 37) {
            figures.add(new Figure("Switch edge repeats within", "±" + significant(homing.creepSpeed() * subStep / 2, 3), unit,
                    "creep speed × " + Bench.SUB_STEP_NANOS / 1000 + " µs sampling ÷ 2"));
        }
        figures.add(new Figure("Comes to rest", fixed(result.rest() - result.zero(), 3), unit + " past zero", "place of rest − place of zero"));
        figures.add(new Figure("Sent to drive, 6098h", Integer.toString(homing.method()), "", "homing method"));
        figures.add(new Figure("6099h:01 / :02", count(axis.scale().wireFromUnits(homing.searchSpeed())) + " / " + count(axis.scale().wireFromUnits(homing.creepSpeed())), "",
                "search and creep speed in wire units per second"));
        return figures;
    }

    private static List<Finding> findings(Axis axis, HomingTrial.Result result, HomingTrial.Result worst, String pointer) {
        String unit = axis.unit().symbol();
        List<Finding> findings = new ArrayList<>();
        if (!worst.found()) {
            findings.add(new Finding("home", axis.name(), Finding.Severity.FAULT, "From " + fixed(worst.start(), 0) + " " + unit + " the axis finds no zero.", worst.message(), null));
            return findings;
        }
        if (axis.homing().creepSpeed() > axis.homing().searchSpeed()) {
            findings.add(new Finding("home", axis.name(), Finding.Severity.WARNING, "Creep is faster than search.",
                    "The zero would be taken less exactly than the switch.",
                    Finding.Mend.set("Creep at a tenth of the search speed", pointer + "/homing/creepSpeed", axis.homing().searchSpeed() / 10)));
        }
        if (axis.homing().method() == 11) {
            double turn = axis.scale().unitsPerMotorTurn().toDouble();
            double share = (result.zero() - axis.travel().camTo()) / turn;
            boolean near = share < 0.1 || share > 0.9;
            findings.add(near
                    ? new Finding("home", axis.name(), Finding.Severity.WARNING, "The index pulse lies near the cam edge.",
                            "A little play in the switch and the zero jumps by one motor turn, " + significant(turn, 4) + " " + unit + ". Move the cam by about half a turn.", null)
                    : new Finding("home", axis.name(), Finding.Severity.GOOD, "The zero cannot jump by one turn.",
                            "The index pulse is " + fixed(Math.min(share, 1 - share), 2) + " turns away from a wrong choice.", null));
        }
        double lowest = axis.limits().softMin() - axis.homing().zeroOffset() + result.zero();
        double highest = axis.limits().softMax() - axis.homing().zeroOffset() + result.zero();
        if (lowest < axis.travel().negativeLimit() || highest > axis.travel().positiveLimit()) {
            boolean negative = lowest < axis.travel().negativeLimit();
            double edge = (negative ? axis.travel().negativeLimit() : axis.travel().positiveLimit()) - result.zero() + axis.homing().zeroOffset();
            double advised = negative ? Math.ceil(edge / 5 + 1) * 5 : Math.floor(edge / 5 - 1) * 5;
            findings.add(new Finding("home", axis.name(), Finding.Severity.WARNING, "The " + (negative ? "negative" : "positive") + " soft limit lies past the limit switch.",
                    "With this zero the switch is at " + fixed(edge, 1) + " " + unit + ", so the drive would stop with a fault first.",
                    Finding.Mend.set("Set it to " + fixed(advised, 0) + " " + unit, pointer + "/limits/" + (negative ? "softMin" : "softMax"), advised)));
        }
        if (axis.homing().method() == 37) {
            findings.add(new Finding("home", axis.name(), Finding.Severity.WARNING, "Zero is wherever the axis stands.",
                    "After every power-up someone must put it in the right place first.", null));
        }
        return findings;
    }
}
