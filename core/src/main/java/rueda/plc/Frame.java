package rueda.plc;

/** What running code sees: the memory, the line it is in and what is left of the budget. Not thread-safe. */
public final class Frame {
    /** All values of the task. */
    public final long[] memory;
    /** Values of STRING and WSTRING variables, by slot. */
    final String[] texts;
    /** Line of the statement being executed, from 1. */
    public int line;
    /** Start of the cycle, ns on the bench's clock. */
    public long now;
    int budget;
    /** Number of the cycle, so that the lines run in it can be told from older ones. */
    int cycle;
    private final int[] ranIn;

    Frame(int size, int lines) {
        memory = new long[size];
        texts = new String[size];
        java.util.Arrays.fill(texts, "");
        ranIn = new int[lines + 1];
    }

    /** A statement of this line ran in the present cycle. */
    boolean ran(int statementLine) {
        return ranIn[statementLine] == cycle && cycle > 0;
    }

    int lines() {
        return ranIn.length - 1;
    }

    /** Counts work that grows with the length of a text: a statement for every 64 characters. */
    void spend(int statementLine, int characters) {
        budget -= characters >> 6;
        if (budget < 0) {
            throw new ProgramFault(statementLine, "The instruction budget of one cycle is used up by operations on long texts.");
        }
    }

    /** Counts one statement. @throws ProgramFault when the budget of the cycle is used up */
    void enter(int statementLine) {
        line = statementLine;
        ranIn[statementLine] = cycle;
        if (--budget < 0) {
            throw new ProgramFault(statementLine, "The instruction budget of one cycle is used up: a loop does not end.");
        }
    }
}
