package rueda.bench;

/** Whether a device answers on the bus, and when it does again. No allocation; not thread-safe. */
final class DeviceLife {

    enum State {
        /** It takes part in every cycle. */
        ANSWERS,
        /** It has been switched off and on, and answers again after a while. */
        RESTARTING,
        /** It has no power. */
        OFF,
        /** The PLC does not bring the station into operation. */
        NOT_REACHED
    }

    private State state = State.ANSWERS;
    /** bus cycles until it answers again */
    private int remaining;

    State state() {
        return state;
    }

    boolean answers() {
        return state == State.ANSWERS;
    }

    /** Switched off and on; a station that is not reached stays so. @param cycles bus cycles until it answers again, 1 or more */
    void restart(int cycles) {
        if (state != State.NOT_REACHED) {
            state = State.RESTARTING;
            remaining = cycles;
        }
    }

    /** Its power goes, for good. */
    void switchOff() {
        if (state != State.NOT_REACHED) {
            state = State.OFF;
        }
    }

    void disconnect() {
        state = State.NOT_REACHED;
    }

    /** One bus cycle. @return whether it begins anew now */
    boolean cycle() {
        if (state != State.RESTARTING || --remaining > 0) {
            return false;
        }
        state = State.ANSWERS;
        return true;
    }
}
