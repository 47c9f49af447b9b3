package rueda.drive;

/** Following the encoder at the second input as a person wants it, past the bus: the bus keeps the power state. Not thread-safe. */
public final class FollowByHand {

    private final SetpointChoice choice;

    FollowByHand(SetpointChoice choice) {
        this.choice = choice;
    }

    /** A person has it follow, or it still comes to rest. */
    public boolean leads() {
        return choice.followsByHand();
    }

    /** It is to follow. @return false where there is no encoder to follow */
    public boolean follow() {
        if (!choice.following().fitted()) {
            return false;
        }
        choice.followByHand(true);
        if (!choice.following().tied()) {
            choice.following().askAnew();
        }
        return true;
    }

    /** It is let go, and leads until it is given back. */
    public void letGo() {
        choice.tieByHand(false);
    }

    /** The setpoint moves. */
    public boolean moves() {
        return leads() && choice.following().moves();
    }

    /** Moves the phase on. @param direction −1, 1, or 0 to end  @return it follows */
    public boolean trim(int direction) {
        choice.following().trimByHand(direction);
        return choice.following().tied();
    }

    /** The bus makes the setpoint again. */
    public void end() {
        choice.following().trimByHand(0);
        choice.followByHand(false);
    }
}
