package rueda.proof;

import static rueda.proof.Words.plain;
import static rueda.proof.Words.say;

import rueda.bench.AxisSignal;
import rueda.machine.Axis;
import rueda.machine.Proof.Quantity;

/** A quantity of an axis never goes above a limit. @param limit units/s for speed, N·m for torque, units for following error and phase */
record StaysBounded(String axis, Quantity quantity, double limit) implements Claim {

    @Override
    public String sentence(Axis of) {
        return say("%s of %s never above %s %s", switch (quantity) {
            case SPEED -> "Speed";
            case TORQUE -> "Torque";
            case FOLLOWING_ERROR -> "Following error";
            case PHASE -> "Phase, once locked,";
        }, axis, plain(limit), unit(of));
    }

    private String unit(Axis of) {
        return switch (quantity) {
            case SPEED -> of.unit().symbol() + "/s";
            case TORQUE -> "N·m";
            case FOLLOWING_ERROR, PHASE -> of.unit().symbol();
        };
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
        Causes causes = new Causes(run);
        String name = signal().of(of.name());
        int signal = run.signal(name);
        long worst = 0;
        for (long k = 0; k < run.samples(); k++) {
            if (Math.abs(run.value(signal, k)) > Math.abs(run.value(signal, worst))) {
                worst = k;
            }
        }
        double measured = Math.abs(run.value(signal, worst));
        boolean holds = measured <= limit;
        long from = worst;
        long to = worst;
        while (!holds && from > 0 && Math.abs(run.value(signal, from - 1)) > limit) {
            from--;
        }
        while (!holds && to + 1 < run.samples() && Math.abs(run.value(signal, to + 1)) > limit) {
            to++;
        }
        double time = run.time(worst);
        Causes.Explanation why = holds ? Causes.Explanation.NONE : causes.exceeded(number, quantity, run.time(from), time);
        return new Verdict(sentence(of), holds, limit, measured, unit(of), (limit - measured) / limit, limit - measured, time, run.time(from), run.time(to), name, why.words(), causes.orderAt(number, time), why.mend());
    }
}
