package rueda.plc;

/** The program was stopped while running. */
public final class ProgramFault extends RuntimeException {
    private final int line;

    ProgramFault(int line, String message) {
        super(message);
        this.line = line;
    }

    /** Line in which it was stopped, from 1. */
    public int line() {
        return line;
    }
}
