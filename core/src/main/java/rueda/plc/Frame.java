package rueda.plc;

/** What running code sees: the memory, the line it is in and what is left of the budget. Not thread-safe. */
public final class Frame {
    /** All values of the task. */
    public final long[] memory;
    /** Line of the statement being executed, from 1. */
    public int line;
    /** Start of the cycle, ns on the bench's clock. */
    public long now;
    int budget;

    Frame(int size) {
        memory = new long[size];
    }

    /** Counts one statement. @throws ProgramFault when the budget of the cycle is used up */
    void enter(int statementLine) {
        line = statementLine;
        if (--budget < 0) {
            throw new ProgramFault(statementLine, "The instruction budget of one cycle is used up: a loop does not end.");
        }
    }
}
