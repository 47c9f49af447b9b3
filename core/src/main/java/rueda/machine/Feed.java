package rueda.machine;

import java.math.BigDecimal;
import rueda.quantity.InvalidEntry;
import rueda.quantity.Ratio;
import rueda.quantity.UserUnit;

/**
 * What one turn of the last shaft moves.
 *
 * @param kind   the part
 * @param teeth  teeth of the pinion or pulley, 1 to 1000; 1 for the others
 * @param amount lead of a screw, pitch of a rack or belt, amount of a feeder per turn; exact decimal. DIRECT: not used
 * @param unit   unit of the amount
 */
public record Feed(Kind kind, int teeth, BigDecimal amount, String unit) {

    /** SCREW, RACK and BELT move a mass along a line; DIRECT turns the load; FEEDER gives an amount of something. */
    public enum Kind {
        SCREW("screw", "Lead", "travel of one turn"), RACK("rack", "Pitch", "travel of one tooth"), BELT("belt", "Pitch", "travel of one tooth"), DIRECT("direct", "", ""),
        FEEDER("feeder", "Amount per turn", "what one turn gives");

        private final String words;
        private final String amount;
        private final String amountIs;

        Kind(String words, String amount, String amountIs) {
            this.words = words;
            this.amount = amount;
            this.amountIs = amountIs;
        }

        public String words() {
            return words;
        }

        /** What its amount is called, empty without. */
        public String amount() {
            return amount;
        }

        /** What its amount is. */
        public String amountIs() {
            return amountIs;
        }

        /** It has teeth that are counted. */
        public boolean toothed() {
            return this == RACK || this == BELT;
        }

        /** The load moves along a line, so that its mass, friction force and slope count. */
        public boolean linear() {
            return this == SCREW || this == RACK || this == BELT;
        }
    }

    /** The load moves along a line, so that its mass, friction force and slope count. */
    public boolean linear() {
        return kind.linear();
    }

    /**
     * User units per turn of the last shaft, exact.
     *
     * @throws InvalidEntry when the unit does not fit the part
     */
    public Ratio perTurn(UserUnit user) {
        if (kind == Kind.DIRECT) {
            if (user.quantity() != UserUnit.Quantity.ANGLE) {
                throw new InvalidEntry("unit.symbol", user.symbol(), "an angle: °, rad or turn", "a load that turns directly is measured in angles");
            }
            return UserUnit.of("turn").in(user);
        }
        return Ratio.of(amount).times(Ratio.of(usesTeeth() ? teeth : 1)).times(UserUnit.of(unit).in(user));
    }

    /** Metres per turn of the last shaft; only for a linear part measured in lengths. */
    public double metresPerTurn() {
        return amount.doubleValue() * (usesTeeth() ? teeth : 1) * UserUnit.of(unit).size().toDouble();
    }

    public boolean usesTeeth() {
        return kind == Kind.RACK || kind == Kind.BELT;
    }
}
