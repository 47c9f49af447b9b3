package rueda.plc.code;

import java.util.ArrayList;
import java.util.List;

/**
 * Where a value lies: a start, a fixed distance, and what indices add.
 *
 * @param offset cells from the start
 */
public record Address(Start start, int offset, List<Step> steps) {

    /** Where counting begins. */
    public sealed interface Start {
    }

    /** The first cell of the memory. */
    public record Memory() implements Start {
    }

    /** The first cell of the instance that runs. */
    public record Own() implements Start {
    }

    /** The cell whose number another one keeps: a VAR_IN_OUT or what a reference refers to. @param what of it is said when there is none */
    public record Pointer(Address cell, String what) implements Start {
    }

    /** An index of one dimension; low, high and stride are whole numbers, known before the run except for arrays of any length. */
    public record Step(Node index, Node low, Node high, Node stride) {
    }

    public static Address memory(int slot) {
        return new Address(new Memory(), slot, List.of());
    }

    public static Address own(int offset) {
        return new Address(new Own(), offset, List.of());
    }

    public static Address pointer(Address cell, String what) {
        return new Address(new Pointer(cell, what), 0, List.of());
    }

    /** So many cells further. */
    public Address plus(int cells) {
        return cells == 0 ? this : new Address(start, offset + cells, steps);
    }

    public Address plus(Step step) {
        List<Step> more = new ArrayList<>(steps);
        more.add(step);
        return new Address(start, offset, more);
    }

    /** The slot, where it is known before the run; else −1. */
    public int slot() {
        return start instanceof Memory && steps.isEmpty() ? offset : -1;
    }

    /** The values that it is worked out from. */
    List<Node> parts() {
        List<Node> parts = new ArrayList<>(start instanceof Pointer pointer ? pointer.cell().parts() : List.of());
        steps.forEach(step -> parts.addAll(List.of(step.index(), step.low(), step.high(), step.stride())));
        return parts;
    }

    /** Working it out cannot fail. */
    boolean safe() {
        return steps.isEmpty() && !(start instanceof Pointer);
    }
}
