package rueda.proof;

import static rueda.proof.Words.plain;
import static rueda.proof.Words.say;

import rueda.bench.AxisSignal;
import rueda.machine.Axis;
import rueda.machine.Expectation.End;
import rueda.plcopen.AxisState;

/** How an axis stands at the end of the run. */
record EndsSo(String axis, End end) implements Claim {

    @Override
    public String sentence(Axis of) {
        return axis + " is " + end.words() + " at the end";
    }

    @Override
    public Verdict judge(RecordedRun run) {
        int number = axisIn(run.machine());
        Axis of = run.machine().axes().get(number);
        AxisSignal signal = switch (end) {
            case AT_REST -> AxisSignal.STANDSTILL;
            case REFERENCED -> AxisSignal.REFERENCED;
            case IN_POSITION -> AxisSignal.IN_POSITION;
            case READY, OFF, STOPPED_BY_AN_ERROR -> AxisSignal.STATE;
        };
        long last = run.samples() - 1;
        double value = run.value(run.signal(signal.of(of.name())), last);
        AxisState state = AxisState.values()[(int) run.value(run.signal(AxisSignal.STATE.of(of.name())), last)];
        boolean holds = switch (end) {
            case AT_REST, REFERENCED, IN_POSITION -> value != 0;
            case READY -> state == AxisState.STANDSTILL;
            case OFF -> state == AxisState.DISABLED;
            case STOPPED_BY_AN_ERROR -> state == AxisState.ERROR_STOP;
        };
        double speed = run.value(run.signal(AxisSignal.SPEED.of(of.name())), last);
        return Verdict.of(sentence(of), holds).at(run.end(), run.end(), run.end(), signal.of(of.name()))
                .because(new Causes(run), number, say("At the end it is %s, at %s %s/s.", state.words(), plain(speed), of.unit().symbol()));
    }
}
