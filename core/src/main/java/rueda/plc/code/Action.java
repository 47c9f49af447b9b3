package rueda.plc.code;

import java.util.List;

/** Something to be done, with everything checked. @see Node */
public sealed interface Action {

    /** Line of the text, from 1; 0 for what belongs to the action before. */
    int line();

    record Store(int line, Address to, Node value) implements Action {
    }

    /** All cells of a structure, an array or a function block. @param texts there are texts among them */
    record Copy(int line, Address to, Address from, int cells, boolean texts) implements Action {
    }

    /** Cells take their first values. @param image number of the values  */
    record Reset(int line, Address to, int image) implements Action {
    }

    /** A value is worked out for what happens meanwhile. */
    record Evaluate(int line, Node value) implements Action {
    }

    /** A function block in Structured Text. */
    record CallBlock(int line, String unit, Address instance) implements Action {
    }

    /** A function block in Java. @param number cell, counted from the first one, that keeps the number of the block */
    record CallNative(int line, Address instance, int number) implements Action {
    }

    /** Several for one statement of the text. */
    record Group(int line, List<Action> actions) implements Action {
    }

    /**
     * A place is worked out once for several actions, which reach it by a {@link Address.Pointer} to this cell; the cell itself is not written.
     */
    record Keep(int line, Address cell, Address place, List<Action> actions) implements Action {
    }

    record If(List<Branch> branches, List<Action> otherwise) implements Action {
        @Override
        public int line() {
            return branches.get(0).line();
        }
    }

    record Branch(int line, Node condition, List<Action> body) {
    }

    /** @param unsigned the selector is a whole number of 64 bits without sign */
    record Case(int line, Node selector, boolean unsigned, List<Label> labels, List<List<Action>> bodies, List<Action> otherwise) implements Action {
    }

    /** @param body number of the statements that belong to it */
    record Label(long low, long high, int body) {
    }

    /**
     * A loop with a counter.
     *
     * @param bits   of the counter's type
     * @param signed it has a sign
     * @param step   other than 0; a {@link Node.Whole} where it is known before the run
     */
    record For(int line, Address counter, int bits, boolean signed, Node from, Node to, Node step, List<Action> body) implements Action {
    }

    record While(int line, Node condition, List<Action> body) implements Action {
    }

    /** @param untilLine line of the condition */
    record Repeat(int line, List<Action> body, int untilLine, Node until) implements Action {
    }

    record Exit(int line) implements Action {
    }

    record Continue(int line) implements Action {
    }

    record Return(int line) implements Action {
    }

    /** Statements that become a method of their own, so that none is too long. */
    record Part(List<Action> actions) implements Action {
        @Override
        public int line() {
            return actions.isEmpty() ? 0 : actions.get(0).line();
        }
    }
}
