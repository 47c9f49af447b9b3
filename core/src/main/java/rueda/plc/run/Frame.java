package rueda.plc.run;

import java.util.Arrays;

/** What running code sees: its memory, its function blocks, and what is left of the budget. Written by compiled code. Not thread-safe. */
public final class Frame {
    /** More cells than any memory has; a power of two. */
    public static final int MOST_CELLS = 1 << 20;

    /** All values of the controller. */
    public final long[] memory;
    /** Values of STRING and WSTRING variables, by the same slots. */
    public final String[] texts;
    /** Function blocks in Java, by the number that their instance keeps. */
    public final FunctionBlock[] blocks;
    /** Where the function block in Java that runs was called. */
    public CallPlace call = CallPlace.NONE;
    /** Where function blocks in Java are called, by their numbers. */
    public final CallPlace[] calls;
    /** Start of the task's cycle, ns on the bench's clock. */
    public long now;
    /** Statements that the cycle of the task may still execute. */
    public int budget;
    /** Hears of every statement; null where the code is not traced. */
    public final Tracer tracer;

    private final Image[] images;

    /** @param size slots  @param images first values, by their number  @param calls places of calls, by their number  @param tracer null where the code is not traced */
    public Frame(int size, FunctionBlock[] blocks, Image[] images, CallPlace[] calls, Tracer tracer) {
        memory = new long[size];
        texts = new String[size];
        Arrays.fill(texts, "");
        this.blocks = blocks;
        this.images = images;
        this.calls = calls;
        this.tracer = tracer;
    }

    /** Cells take their first values. */
    public void reset(int to, int image) {
        images[image].into(this, to);
    }

    /** All cells of a variable, with the texts among them. */
    public void copy(int from, int to, int cells) {
        System.arraycopy(memory, from, memory, to, cells);
        System.arraycopy(texts, from, texts, to, cells);
    }

    /** Counts work that grows with the length of a text: a statement for every 64 characters. */
    public void spend(int characters) {
        budget -= characters >> 6;
        if (budget < 0) {
            throw new ProgramFault("The instruction budget of one cycle is used up by operations on long texts.");
        }
    }

    /** Called where a loop begins another round. @throws ProgramFault when the budget of the cycle is used up */
    public void check() {
        if (budget < 0) {
            throw new ProgramFault("The instruction budget of one cycle is used up: a loop does not end.");
        }
    }
}
