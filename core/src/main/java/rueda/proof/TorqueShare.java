package rueda.proof;

import static rueda.proof.Words.plain;
import static rueda.proof.Words.say;

import rueda.bench.AxisSignal;
import rueda.machine.Axis;

/**
 * Effective torque over the whole run as a share of the rated torque, √(∑M²/n) (servo sizing in machine-design handbooks), or the highest as a share of
 * the motor's peak torque.
 *
 * @param effective the former  @param limit %
 */
record TorqueShare(String axis, boolean effective, double limit) implements Claim {

    @Override
    public String sentence(Axis of) {
        return effective ? say("Effective torque of %s at or below %s %% of its rated torque", axis, plain(limit)) : say("Torque of %s at or below %s %% of its motor's peak torque", axis, plain(limit));
    }

    @Override
    public Verdict judge(RecordedRun run) {
        int number = axisIn(run.machine());
        Axis of = run.machine().axes().get(number);
        String name = AxisSignal.TORQUE.of(of.name());
        int torque = run.signal(name);
        double squares = 0;
        int highest = 0;
        for (int k = 0; k < run.samples(); k++) {
            double here = run.value(torque, k);
            squares += here * here;
            highest = Math.abs(here) > Math.abs(run.value(torque, highest)) ? k : highest;
        }
        double measured = 100 * (effective ? Math.sqrt(squares / run.samples()) / of.motor().ratedTorque() : Math.abs(run.value(torque, highest)) / of.motor().peakTorque());
        double time = run.time(highest);
        return Verdict.of(sentence(of), measured <= limit).withLimit(limit).withMeasured(measured).withUnit("%").withRoom((limit - measured) / limit).withMargin(limit - measured)
                .at(time, effective ? run.time(0) : time, effective ? run.end() : time, name)
                .because(new Causes(run), number, effective ? say("Over %s s the torque has the effect of %s N·m that stand all the time; the motor is rated for %s N·m.", plain(run.end()), plain(Math.sqrt(squares / run.samples())), plain(of.motor().ratedTorque()))
                        : say("The torque reached %s N·m of %s N·m.", plain(Math.abs(run.value(torque, highest))), plain(of.motor().peakTorque())));
    }
}
