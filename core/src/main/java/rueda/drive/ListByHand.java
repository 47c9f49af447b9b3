package rueda.drive;

/**
 * The move list as a person runs it, past the bus: the bus keeps the power state, the list makes the setpoint until it is given back.
 * Not thread-safe.
 */
public final class ListByHand {

    private final SetpointChoice choice;

    ListByHand(SetpointChoice choice) {
        this.choice = choice;
    }

    /** The list leads by hand. */
    public boolean leads() {
        return choice.listByHand();
    }

    /** An entry moves, rests or awaits. */
    public boolean runs() {
        return leads() && choice.list().running() && choice.list().phase() != MoveListSource.Phase.HELD;
    }

    /** The setpoint moves. */
    public boolean moves() {
        return leads() && choice.list().moves();
    }

    /** Starts an entry; after power-up the one that is set for the first start. @param entry its number */
    public void start(int entry) {
        choice.listByHand(true);
        choice.list().start(entry);
    }

    /** The axis comes to rest, and what ran can go on. */
    public void hold() {
        choice.list().hold();
    }

    public void goOn() {
        choice.list().goOn();
    }

    /** It holds after each entry, or runs through. */
    public void stepwise(boolean now) {
        choice.list().stepwise(now);
    }

    /** The bus makes the setpoint again. */
    public void end() {
        choice.list().stepwise(false);
        choice.listByHand(false);
    }
}
