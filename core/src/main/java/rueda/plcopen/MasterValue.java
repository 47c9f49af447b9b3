package rueda.plcopen;

import rueda.quantity.Modulo;

/**
 * How far a master has gone, in whole wire units since it was switched on: what its followers are geared to. Positions of an endless axis that
 * begin again are counted on, and what homing changes of its numbers is no way. No allocation; not thread-safe.
 */
final class MasterValue {

    private final long modulo;
    private final Modulo wrapped;
    private long gone;
    private long step;
    private long before;
    private boolean known;

    /** @param modulo wire units after which positions begin again, 0 for none */
    MasterValue(long modulo) {
        this.modulo = modulo;
        wrapped = new Modulo(Math.max(1, modulo));
    }

    /** @param wire position now  @param counts false where the numbers change and the axis does not move */
    void take(long wire, boolean counts) {
        step = 0;
        if (known && counts) {
            step = wire - before;
            if (modulo != 0) {
                step = wrapped.of(step);
                step -= step > modulo / 2 ? modulo : 0;
            }
            gone += step;
        }
        before = wire;
        known = true;
    }

    /** It is where it was. */
    void stay() {
        step = 0;
    }

    long gone() {
        return gone;
    }

    /** Way of the last bus cycle. */
    long step() {
        return step;
    }

    /** The way to a place, in one direction; with ends it may be negative. @param wire the place  @param sign 1 forward, −1 back */
    long wayTo(long wire, int sign) {
        return modulo == 0 ? wire - before : sign * wrapped.of(sign * (wire - before));
    }
}
