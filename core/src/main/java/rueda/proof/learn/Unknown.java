package rueda.proof.learn;

import rueda.machine.Axis;
import rueda.machine.Load;

/** A value of an axis that can be learned. */
public enum Unknown {
    LOAD("load"), COULOMB("Coulomb friction"), VISCOUS("viscous friction"), SLOPE("slope of the line"), STIFFNESS("stiffness"), DELAY("delay");

    private final String words;

    Unknown(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** What it is called of an axis. */
    public String words(Axis axis) {
        return this != LOAD ? words : axis.train().feed().linear() ? "mass of the load" : "inertia of the load";
    }

    public String unit(Axis axis) {
        boolean linear = axis.train().feed().linear();
        return switch (this) {
            case LOAD -> linear ? "kg" : "kg·m²";
            case COULOMB -> linear ? "N" : "N·m";
            case VISCOUS -> linear ? "N·s/m" : "N·m·s/rad";
            case SLOPE -> "°";
            case STIFFNESS -> "N·m/rad";
            case DELAY -> "s";
        };
    }

    /** JSON pointer in the axis; empty for what the document does not have. */
    public String pointer(Axis axis) {
        return switch (this) {
            case LOAD -> axis.train().feed().linear() ? "/load/mass" : "/load/inertia";
            case COULOMB -> "/load/coulomb";
            case VISCOUS -> "/load/viscous";
            case SLOPE -> "/load/slope";
            case STIFFNESS -> "/load/stiffness";
            case DELAY -> "";
        };
    }

    /** Why it cannot be learned of an axis; null where it can. */
    public String missingIn(Axis axis) {
        return switch (this) {
            case SLOPE -> axis.train().feed().linear() ? null : "the load of " + axis.name() + " does not move along a line";
            case STIFFNESS -> axis.load().stiffness() <= 0 ? "the load of " + axis.name() + " is rigid in the document"
                    : axis.load().backlash() > 0 ? axis.name() + " has play, in which it rattles otherwise each time" : null;
            default -> null;
        };
    }

    double of(Axis axis) {
        Load load = axis.load();
        return switch (this) {
            case LOAD -> axis.train().feed().linear() ? load.mass() : load.inertia();
            case COULOMB -> load.coulomb();
            case VISCOUS -> load.viscous();
            case SLOPE -> load.slope();
            case STIFFNESS -> load.stiffness();
            case DELAY -> 0;
        };
    }

    Load in(Axis axis, Load l, double value) {
        return switch (this) {
            case LOAD -> axis.train().feed().linear() ? new Load(value, l.inertia(), l.coulomb(), l.viscous(), l.slope(), l.stiffness(), l.damping(), l.backlash())
                    : new Load(l.mass(), value, l.coulomb(), l.viscous(), l.slope(), l.stiffness(), l.damping(), l.backlash());
            case COULOMB -> l.withFriction(value, l.viscous());
            case VISCOUS -> l.withFriction(l.coulomb(), value);
            case SLOPE -> new Load(l.mass(), l.inertia(), l.coulomb(), l.viscous(), value, l.stiffness(), l.damping(), l.backlash());
            case STIFFNESS -> new Load(l.mass(), l.inertia(), l.coulomb(), l.viscous(), l.slope(), value, l.damping(), l.backlash());
            case DELAY -> l;
        };
    }

    /** What a change of it is measured by: its own size, or what is small beside the motor where it is 0. */
    double scale(Axis axis) {
        double own = Math.abs(of(axis));
        /* a force of 1 N, or a torque of 1 N·m, at the load is so much at the motor */
        double lever = axis.withLoad(axis.load().withFriction(1, 0)).motorSide().coulomb();
        double small = 0.02 * axis.motor().ratedTorque() / Math.max(1e-12, lever);
        return switch (this) {
            case LOAD, STIFFNESS -> own > 0 ? own : 1;
            case COULOMB -> Math.max(own, small);
            case VISCOUS -> Math.max(own, small);
            case SLOPE -> Math.max(own, 5);
            case DELAY -> 0.005;
        };
    }

    double least() {
        return switch (this) {
            case LOAD, STIFFNESS -> 1e-6;
            case COULOMB, VISCOUS -> 0;
            case SLOPE -> -90;
            case DELAY -> -1;
        };
    }

    double most() {
        return switch (this) {
            case SLOPE -> 90;
            case DELAY -> 1;
            default -> 1e9;
        };
    }
}
