package rueda.proof;

import static rueda.proof.Words.plain;
import static rueda.proof.Words.say;

import rueda.bench.AxisSignal;
import rueda.machine.Axis;
import rueda.machine.Machine;

/**
 * Two axes are never both in their zones, nor nearer to them than a distance: at every instant at least one of them is so far away. What
 * that one is away from its zone, less the distance, is the room.
 *
 * @param low       user units of the axis
 * @param high      the same
 * @param otherLow  user units of the other one
 * @param otherHigh the same
 * @param distance  user units of the one that is farther away
 */
record NeverBoth(String axis, double low, double high, String other, double otherLow, double otherHigh, double distance) implements Claim {

    @Override
    public String sentence(Axis of) {
        return say("Never both: %s between %s and %s %s, and %s between %s and %s; %s apart", axis, plain(low), plain(high), of.unit().symbol(), other, plain(otherLow), plain(otherHigh), plain(distance));
    }

    @Override
    public Verdict judge(RecordedRun run) {
        Machine machine = run.machine();
        int number = axisIn(machine);
        Axis of = machine.axes().get(number);
        Axis second = machine.axis(other).orElseThrow(() -> new IllegalArgumentException("There is no axis " + other));
        int here = run.signal(AxisSignal.POSITION.of(of.name()));
        int there = run.signal(AxisSignal.POSITION.of(second.name()));
        Worst worst = Worst.of(Stretch.ALWAYS.samples(new Reading(run)), k -> Math.max(away(run.value(here, k), low, high), away(run.value(there, k), otherLow, otherHigh)) - distance);
        double first = run.value(here, worst.sample());
        double secondPlace = run.value(there, worst.sample());
        boolean firstDecides = away(first, low, high) >= away(secondPlace, otherLow, otherHigh);
        return Verdict.of(sentence(of), worst.holds()).withLimit(distance).withMeasured(worst.room() + distance).withUnit((firstDecides ? of : second).unit().symbol())
                .withRoom(distance > 0 ? (Double) (worst.room() / distance) : null).withMargin(worst.room())
                .at(run.time(worst.sample()), run.time(worst.from()), run.time(worst.to()), AxisSignal.POSITION.of(of.name()))
                .because(new Causes(run), number, say("%s stood at %s %s and %s at %s %s.", of.name(), plain(first), of.unit().symbol(), second.name(), plain(secondPlace), second.unit().symbol()));
    }

    /** How far outside of a zone, negative inside. */
    private static double away(double position, double low, double high) {
        return Math.max(low - position, position - high);
    }
}
