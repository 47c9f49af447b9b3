package rueda.proof;

import static rueda.proof.Words.plain;
import static rueda.proof.Words.say;

import java.util.BitSet;
import rueda.bench.AxisSignal;
import rueda.machine.Axis;
import rueda.machine.Expectation.Quantity;

/** A quantity of an axis does not go above a limit. @param limit units/s for speed, N·m for torque, units for following error and phase */
record StaysBounded(String axis, Quantity quantity, double limit, Stretch stretch) implements Claim {

    StaysBounded(String axis, Quantity quantity, double limit) {
        this(axis, quantity, limit, Stretch.ALWAYS);
    }

    @Override
    public String sentence(Axis of) {
        return say("%s of %s never above %s %s%s", switch (quantity) {
            case SPEED -> "Speed";
            case TORQUE -> "Torque";
            case FOLLOWING_ERROR -> "Following error";
            case PHASE -> "Phase, once locked,";
        }, axis, plain(limit), unit(of), stretch.words());
    }

    private String unit(Axis of) {
        return quantity.unit().replace("u", of.unit().symbol());
    }

    private AxisSignal signal() {
        return switch (quantity) {
            case SPEED -> AxisSignal.SPEED;
            case TORQUE -> AxisSignal.TORQUE;
            case FOLLOWING_ERROR -> AxisSignal.FOLLOWING_ERROR;
            case PHASE -> AxisSignal.PHASE;
        };
    }

    @Override
    public Verdict judge(RecordedRun run) {
        int number = axisIn(run.machine());
        Axis of = run.machine().axes().get(number);
        Reading reading = new Reading(run);
        BitSet counted = stretch.samples(reading);
        String name = signal().of(of.name());
        if (counted.isEmpty()) {
            return Verdict.nothingShown(sentence(of), run.end(), stretch.never()).withSignal(name);
        }
        Causes causes = new Causes(run);
        int signal = run.signal(name);
        Worst worst = Worst.of(counted, k -> limit - Math.abs(run.value(signal, k)));
        double time = run.time(worst.sample());
        double from = run.time(worst.from());
        Causes.Explanation why = worst.holds() ? Causes.Explanation.NONE : causes.exceeded(number, quantity, limit, from, time);
        return Verdict.of(sentence(of), worst.holds()).withLimit(limit).withMeasured(limit - worst.room()).withUnit(unit(of)).withRoom(worst.room() / limit).withMargin(worst.room())
                .withTime(time).withFrom(from).withTo(run.time(worst.to())).withSignal(name).withCause(why.words()).withOrder(causes.orderAt(number, time)).withMend(why.mend());
    }
}
