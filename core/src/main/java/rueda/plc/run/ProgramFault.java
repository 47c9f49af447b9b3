package rueda.plc.run;

/**
 * The program was stopped while running. Where it was is read from the stack: compiled code carries the lines of its text.
 */
public final class ProgramFault extends RuntimeException {

    /** Package of the classes that programs are compiled into. */
    public static final String PROGRAM_PACKAGE = "program";

    private final StatementPlace stopped;

    public ProgramFault(String message) {
        this(message, null);
    }

    /** @param stopped where it was stopped, when the stack does not say it; may be null */
    public ProgramFault(String message, StatementPlace stopped) {
        super(message);
        this.stopped = stopped;
    }

    /** The innermost unit that was running, or null. */
    private StackTraceElement place() {
        for (StackTraceElement element : getStackTrace()) {
            if (element.getClassName().startsWith(PROGRAM_PACKAGE + ".") && element.getLineNumber() > 0) {
                return element;
            }
        }
        return null;
    }

    /** Line in which it was stopped, from 1; 0 outside of a program. */
    public int line() {
        if (stopped != null) {
            return stopped.line();
        }
        StackTraceElement place = place();
        return place == null ? 0 : place.getLineNumber();
    }

    /** Name of the text in which it was stopped, empty outside of a program. */
    public String file() {
        if (stopped != null) {
            return stopped.file();
        }
        StackTraceElement place = place();
        return place == null || place.getFileName() == null ? "" : place.getFileName();
    }
}
