package rueda.edit;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import rueda.machine.Axis;
import rueda.machine.Following;
import rueda.machine.Following.FollowRatio;
import rueda.machine.Following.Source;
import rueda.machine.Machine;
import rueda.quantity.InvalidEntry;
import rueda.quantity.Ratio;

/** An axis begins to follow a master: with pitches that belong to its ratio, and speeds that suit it (our choice). */
public final class FollowEdit {

    /** Share of the highest speed of the axis with which it catches up, and with which it is trimmed. */
    private static final double CATCH_UP_SHARE = 0.1;
    private static final double TRIM_SHARE = 0.02;
    /** ms: counts of an encoder come one by one */
    private static final double ENCODER_FILTER = 4;
    private static final MathContext DIGITS = new MathContext(12, RoundingMode.HALF_EVEN);

    private FollowEdit() {
    }

    /**
     * What an axis follows from now on. What was entered before stays; what never was is filled in.
     *
     * @param axis   index of the follower
     * @param source NONE to follow nothing
     * @param master name of the master, not looked at for NONE
     * @throws InvalidEntry when there is no such other axis
     */
    public static Following of(Machine machine, int axis, Source source, String master) {
        Axis follower = machine.axes().get(axis);
        Following now = follower.following();
        if (source == Source.NONE) {
            return now.withSource(Source.NONE).withMaster("");
        }
        if (source == Source.ENCODER) {
            Following begun = begun(now, follower).withSource(source).withMaster("");
            begun = now.filter() == 0 ? begun.withFilter(ENCODER_FILTER) : begun;
            return now.ratio().equals(Following.NONE.ratio()) ? begun.withRatio(pitched(now.ratio(), follower, now.encoder().unitsPerTurn())) : begun;
        }
        Axis followed = machine.master(String.valueOf(master)).filter(a -> a != follower)
                .orElseThrow(() -> new InvalidEntry("master", String.valueOf(master), "another axis of the machine, or a virtual master", "choose one"));
        Following begun = begun(now, follower).withSource(source).withMaster(followed.name());
        return now.ratio().equals(Following.NONE.ratio()) ? begun.withRatio(pitched(now.ratio(), follower, followed.train().feed().perTurn(followed.unit().user()))) : begun;
    }

    private static Following begun(Following now, Axis follower) {
        if (now.catchUp() != 0 || now.trimSpeed() != 0 || now.phaseWindow() != 0) {
            return now;
        }
        double speed = follower.limits().max().speed();
        return now.withCatchUp(rounded(CATCH_UP_SHARE * speed)).withTrimSpeed(rounded(TRIM_SHARE * speed)).withPhaseWindow(follower.supervision().followingError());
    }

    /** The pitches of one turn of the master. */
    private static FollowRatio pitched(FollowRatio ratio, Axis follower, Ratio masterTurn) {
        return ratio.withMasterPitch(decimal(masterTurn.times(Ratio.of(ratio.in()))))
                .withFollowerPitch(decimal(follower.train().feed().perTurn(follower.unit().user()).times(Ratio.of(ratio.out()))));
    }

    private static BigDecimal decimal(Ratio ratio) {
        BigDecimal value = new BigDecimal(ratio.numerator()).divide(new BigDecimal(ratio.denominator()), DIGITS);
        return value.signum() == 0 ? BigDecimal.ONE : new BigDecimal(value.stripTrailingZeros().toPlainString());
    }

    private static double rounded(double value) {
        return new BigDecimal(value).round(new MathContext(2)).doubleValue();
    }
}
