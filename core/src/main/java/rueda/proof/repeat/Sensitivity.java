package rueda.proof.repeat;

import static java.util.Comparator.comparingDouble;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;
import rueda.machine.Axis;
import rueda.machine.Circumstance;
import rueda.machine.Condition;
import rueda.machine.Machine;
import rueda.machine.Proof;
import rueda.proof.Claim;

/** What one condition costs while everything else is as the document says: straight lines between the values that ran. */
final class Sensitivity {

    /** Less of the room than this is not worth a sentence. */
    private static final double LEAST_SHARE = 0.02;
    private static final double MORE = 0.1;

    private record Point(double value, double margin, boolean holds) {
    }

    private record Remark(double weight, String words) {
    }

    private final Machine machine;
    private final Proof proof;
    private final List<Outcome> outcomes;

    Sensitivity(Machine machine, Proof proof, List<Outcome> outcomes) {
        this.machine = machine;
        this.proof = proof;
        this.outcomes = outcomes;
    }

    /** Those that matter most first: where something does not hold any more, then what costs the greatest share of the room. */
    List<String> remarks(int most) {
        List<Remark> remarks = new ArrayList<>();
        for (int c = 0; c < proof.conditions().size(); c++) {
            for (int e = 0; e < proof.expectations().size(); e++) {
                if (proof.conditions().get(c).of() != Circumstance.MISTAKE) {
                    remark(c, e, remarks);
                }
            }
        }
        return remarks.stream().sorted(comparingDouble(Remark::weight).reversed()).limit(most).map(Remark::words).toList();
    }

    private void remark(int c, int e, List<Remark> remarks) {
        Condition condition = proof.conditions().get(c);
        OptionalDouble nominal = nominal(condition);
        List<Point> points = new ArrayList<>();
        for (Outcome one : outcomes) {
            double value = one.of().unchanged() && nominal.isPresent() ? nominal.getAsDouble() : one.of().values()[c];
            if (!Double.isNaN(value) && !Double.isNaN(one.margins()[e])) {
                points.add(new Point(value, one.margins()[e], one.holds()[e]));
            }
        }
        points.sort(comparingDouble(Point::value));
        String unit = unit(e);
        String what = condition.of().called() + (condition.of().ofAxis() ? " of " + condition.axis() : "");
        if (condition.of() == Circumstance.MOMENT) {
            what = "the moment of sentence " + (condition.sentence() + 1);
        }
        List<String> parts = new ArrayList<>();
        double weight = 0;
        if (nominal.isPresent() && nominal.getAsDouble() != 0) {
            OptionalDouble here = at(points, nominal.getAsDouble());
            OptionalDouble more = at(points, nominal.getAsDouble() * (1 + MORE));
            if (here.isPresent() && more.isPresent()) {
                double cost = here.getAsDouble() - more.getAsDouble();
                double share = Math.abs(cost) / Math.max(Math.abs(here.getAsDouble()), 1e-12);
                if (share > LEAST_SHARE) {
                    weight = Math.min(1, share);
                    parts.add(String.format(Locale.ROOT, "10 %% more %s %s %s %s of room", what, cost > 0 ? "costs" : "gives", Prepared.number(Math.abs(cost)), unit));
                }
            }
        }
        for (int i = 1; i < points.size(); i++) {
            Point a = points.get(i - 1);
            Point b = points.get(i);
            if (a.holds() != b.holds() && a.margin() != b.margin()) {
                double crossing = a.value() + (b.value() - a.value()) * a.margin() / (a.margin() - b.margin());
                weight = 2;
                parts.add((parts.isEmpty() ? "With the " + what + " it" : "it") + (a.holds() ? " does not hold from about " : " holds from about ") + Prepared.value(machine, condition, crossing) + " on");
            }
        }
        if (!parts.isEmpty()) {
            remarks.add(new Remark(weight, sentence(e) + ": " + String.join("; ", parts) + "."));
        }
    }

    private String sentence(int e) {
        Claim claim = Claim.of(proof.expectations().get(e));
        return claim.sentence(claim.axis() == null ? null : machine.axis(claim.axis()).orElseThrow());
    }

    private String unit(int e) {
        return outcomes.get(0).units().get(e);
    }

    /** Between two values the straight line; nothing outside. */
    private static OptionalDouble at(List<Point> points, double value) {
        for (int i = 0; i < points.size(); i++) {
            Point b = points.get(i);
            if (b.value() == value) {
                return OptionalDouble.of(b.margin());
            }
            if (i > 0 && points.get(i - 1).value() < value && b.value() > value) {
                Point a = points.get(i - 1);
                return OptionalDouble.of(a.margin() + (b.margin() - a.margin()) * (value - a.value()) / (b.value() - a.value()));
            }
        }
        return OptionalDouble.empty();
    }

    /** What the document says, in the unit of the circumstance; none of what it says nothing about. */
    private OptionalDouble nominal(Condition condition) {
        if (condition.of() == Circumstance.MOMENT) {
            return OptionalDouble.of(proof.script().get(condition.sentence()).time());
        }
        if (condition.of() == Circumstance.TASK_JITTER) {
            return OptionalDouble.of(0);
        }
        Axis axis = machine.axis(condition.axis()).orElseThrow();
        return switch (condition.of()) {
            case MASS -> OptionalDouble.of(axis.load().mass());
            case INERTIA -> OptionalDouble.of(axis.load().inertia());
            case PLAY -> OptionalDouble.of(axis.load().backlash());
            case SLOPE -> OptionalDouble.of(axis.load().slope());
            case START -> OptionalDouble.of(axis.travel().parkedAt());
            case FRICTION, STIFFNESS, TORQUE, POSITION_GAIN, VELOCITY_GAIN -> OptionalDouble.of(100);
            case CAM, LIMIT_SWITCHES, INDEX, ENCODER_NOISE, CLOCK, FRAMES_LOST -> OptionalDouble.of(0);
            case MISTAKE, MOMENT, TASK_JITTER -> OptionalDouble.empty();
        };
    }
}
