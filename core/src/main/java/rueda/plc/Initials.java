package rueda.plc;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import rueda.plc.code.Action;
import rueda.plc.code.Address;
import rueda.plc.code.Node;
import rueda.plc.run.Image;
import rueda.plc.syntax.ExpressionSyntax;
import rueda.plc.syntax.ExpressionSyntax.Composed;
import rueda.plc.syntax.ExpressionSyntax.Item;
import rueda.plc.syntax.ExpressionSyntax.Listed;
import rueda.plc.syntax.StatementSyntax.Input;
import rueda.plc.type.ArrayType;
import rueda.plc.type.BlockType;
import rueda.plc.type.DataType;
import rueda.plc.type.ReferenceType;
import rueda.plc.type.StructType;

/** First values of variables: constants become part of what the memory holds at first, the others are worked out when it begins. */
final class Initials {

    private final ExpressionCompiler expressions;

    /** @param image what the cells hold at first  @param actions what is worked out then */
    record Values(Image image, List<Action> actions) {
    }

    Initials(ExpressionCompiler expressions) {
        this.expressions = expressions;
    }

    /** @param type of the variable  @param usual what its type gives  @param at where it lies */
    Values of(ExpressionSyntax written, DataType type, Image usual, Address at) {
        List<Action> actions = new ArrayList<>();
        long[] cells = usual.cells().clone();
        String[] texts = usual.texts() == null ? null : usual.texts().clone();
        put(written, type, 0, new Image(cells, texts), at, actions);
        return new Values(new Image(cells, texts), actions);
    }

    private void put(ExpressionSyntax written, DataType type, int offset, Image into, Address at, List<Action> actions) {
        if (written instanceof Listed listed) {
            if (type instanceof ArrayType array && !array.open()) {
                list(listed, array, offset, into, at, actions);
            } else {
                expressions.faults().at(written, "Values in [ ] are for an array, not for " + type.written() + ".");
            }
        } else if (written instanceof Composed composed) {
            compose(composed, type, offset, into, at, actions);
        } else if (type.isElementary() || type instanceof ReferenceType) {
            single(written, type, offset, into, at, actions);
        } else if (type instanceof BlockType) {
            expressions.faults().at(written, "A function block takes its values where it is called, or as (Pin := value).");
        } else {
            copied(written, type, at.plus(offset), actions);
        }
    }

    private void single(ExpressionSyntax written, DataType type, int offset, Image into, Address at, List<Action> actions) {
        Expression value = expressions.compile(written, type);
        if (value.faulty()) {
            return;
        }
        Node node = value.node();
        if (node instanceof Node.Whole whole) {
            into.cells()[offset] = whole.value();
        } else if (node instanceof Node.Bool bool) {
            into.cells()[offset] = bool.value() ? 1 : 0;
        } else if (node instanceof Node.Real real) {
            into.cells()[offset] = Double.doubleToRawLongBits(real.value());
        } else if (node instanceof Node.Text text) {
            into.texts()[offset] = text.value();
        } else {
            actions.add(new Action.Store(written.place().line(), at.plus(offset), node));
        }
    }

    /** A whole variable as the first value of another one. */
    private void copied(ExpressionSyntax written, DataType type, Address to, List<Action> actions) {
        Expression value = expressions.compile(written, type);
        if (!value.faulty()) {
            actions.add(new Action.Copy(written.place().line(), to, value.address(), type.cells(), true));
        }
    }

    private void list(Listed written, ArrayType array, int offset, Image into, Address at, List<Action> actions) {
        long filled = 0;
        long elements = array.elements();
        int stride = array.element().cells();
        for (Item item : written.items()) {
            long times = times(item);
            for (long i = 0; i < times; i++) {
                if (item.values().isEmpty()) {
                    filled++;
                }
                for (ExpressionSyntax value : item.values()) {
                    if (value instanceof Listed inner && array.bounds().size() > 1 && !(array.element() instanceof ArrayType)) {
                        /* [[1, 2], [3, 4]] for two dimensions, as many write it (common practice, no source) */
                        ArrayType row = new ArrayType(array.bounds().subList(1, array.bounds().size()), array.element());
                        if (filled + row.elements() <= elements) {
                            list(inner, row, offset + (int) filled * stride, into, at, actions);
                        }
                        filled += row.elements();
                        continue;
                    }
                    if (filled < elements) {
                        put(value, array.element(), offset + (int) filled * stride, into, at, actions);
                    }
                    filled++;
                }
                if (filled > elements) {
                    expressions.faults().at(written, "The array has " + elements + (elements == 1 ? " element" : " elements") + ", and more values are given.");
                    return;
                }
            }
        }
    }

    private long times(Item item) {
        if (item.count() == null) {
            return 1;
        }
        Expression count = expressions.compile(item.count());
        if (count.faulty()) {
            return 0;
        }
        boolean fits = count.isConstantWhole() && count.exact().signum() >= 0 && count.exact().bitLength() < 31;
        if (!fits) {
            expressions.faults().at(item.count(), "How often a value stands is a constant whole number, 0 or more.");
            return 0;
        }
        return Math.min(count.exact().intValue(), Storage.MOST_CELLS + 1);
    }

    private void compose(Composed written, DataType type, int offset, Image into, Address at, List<Action> actions) {
        Set<String> given = new HashSet<>();
        for (Input member : written.members()) {
            DataType memberType = null;
            int memberOffset = 0;
            if (type instanceof StructType structure && structure.member(member.pin()) != null) {
                memberType = structure.member(member.pin()).type();
                memberOffset = structure.member(member.pin()).offset();
            } else if (type instanceof BlockType block && block.member(member.pin()) != null && block.member(member.pin()).role() != BlockType.Role.IN_OUT) {
                memberType = block.member(member.pin()).type();
                memberOffset = block.member(member.pin()).offset();
            }
            if (!(type instanceof StructType) && !(type instanceof BlockType)) {
                expressions.faults().at(written, "Values by name are for a structure, not for " + type.written() + ".");
                return;
            }
            if (memberType == null) {
                List<String> names = type instanceof StructType s ? s.members().stream().map(StructType.Member::name).toList() : ((BlockType) type).members().stream().map(BlockType.Member::name).toList();
                expressions.faults().at(member.place(), type.written() + " has no member " + member.pin() + "." + Scope.guess(member.pin(), names));
            } else if (!given.add(Scope.key(member.pin()))) {
                expressions.faults().at(member.place(), member.pin() + " is given twice.");
            } else {
                expressions.names().used(member.place(), type.written(), member.pin(), NameIndex.How.WRITTEN);
                put(member.value(), memberType, offset + memberOffset, into, at, actions);
            }
        }
    }
}
