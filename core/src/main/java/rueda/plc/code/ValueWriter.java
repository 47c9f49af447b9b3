package rueda.plc.code;

import static org.objectweb.asm.Opcodes.*;
import static rueda.plc.code.Generator.FRAME;
import static rueda.plc.code.Generator.OPERATIONS;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.objectweb.asm.Label;
import org.objectweb.asm.MethodVisitor;
import org.objectweb.asm.Type;
import rueda.plc.code.Node.Kind;

/** Writes values: what a {@link Node} says lies on top of the stack afterwards, as its kind is held. */
final class ValueWriter {

    private final MethodVisitor code;
    private final MethodWriter method;

    ValueWriter(MethodVisitor code, MethodWriter method) {
        this.code = code;
        this.method = method;
    }

    // ---- constants

    void integer(int value) {
        if (value >= -1 && value <= 5) {
            code.visitInsn(ICONST_0 + value);
        } else if (value >= Byte.MIN_VALUE && value <= Byte.MAX_VALUE) {
            code.visitIntInsn(BIPUSH, value);
        } else if (value >= Short.MIN_VALUE && value <= Short.MAX_VALUE) {
            code.visitIntInsn(SIPUSH, value);
        } else {
            code.visitLdcInsn(value);
        }
    }

    void whole(long value) {
        if (value == 0 || value == 1) {
            code.visitInsn(value == 0 ? LCONST_0 : LCONST_1);
        } else if (value >= Short.MIN_VALUE && value <= Short.MAX_VALUE) {
            integer((int) value);
            code.visitInsn(I2L);
        } else {
            code.visitLdcInsn(value);
        }
    }

    private void real(double value) {
        if (Double.doubleToRawLongBits(value) == 0) {
            code.visitInsn(DCONST_0);
        } else if (value == 1) {
            code.visitInsn(DCONST_1);
        } else {
            code.visitLdcInsn(value);
        }
    }

    /** A text may be longer than a constant of a class: then it is put together. */
    private void text(String value) {
        int longest = 16_000;
        code.visitLdcInsn(value.substring(0, Math.min(longest, value.length())));
        for (int at = longest; at < value.length(); at += longest) {
            code.visitLdcInsn(value.substring(at, Math.min(at + longest, value.length())));
            code.visitMethodInsn(INVOKEVIRTUAL, "java/lang/String", "concat", "(Ljava/lang/String;)Ljava/lang/String;", false);
        }
    }

    // ---- places

    /** The number of a cell, as {@code int}. */
    void place(Address address) {
        if (address.start() instanceof Address.Own) {
            code.visitVarInsn(ILOAD, 0);
            plus(address.offset());
        } else if (address.start() instanceof Address.Pointer pointer && method.lent(pointer.cell()) != null) {
            code.visitVarInsn(ILOAD, method.lent(pointer.cell()));
            plus(address.offset());
        } else if (address.start() instanceof Address.Pointer pointer) {
            method.memory();
            place(pointer.cell());
            code.visitInsn(LALOAD);
            code.visitLdcInsn(pointer.what());
            code.visitMethodInsn(INVOKESTATIC, OPERATIONS, "place", "(JLjava/lang/String;)I", false);
            plus(address.offset());
        } else {
            integer(address.offset());
        }
        for (Address.Step step : address.steps()) {
            value(step.index());
            value(step.low());
            value(step.high());
            code.visitMethodInsn(INVOKESTATIC, OPERATIONS, "index", "(JJJ)I", false);
            if (!(step.stride() instanceof Node.Whole stride)) {
                value(step.stride());
                code.visitInsn(L2I);
                code.visitInsn(IMUL);
            } else if (stride.value() != 1) {
                integer((int) stride.value());
                code.visitInsn(IMUL);
            }
            code.visitInsn(IADD);
        }
    }

    private void plus(int offset) {
        if (offset != 0) {
            integer(offset);
            code.visitInsn(IADD);
        }
    }

    /** What a cell keeps of a value. */
    void asCell(Kind kind) {
        if (kind == Kind.BOOL) {
            code.visitInsn(I2L);
        } else if (kind == Kind.REAL) {
            code.visitMethodInsn(INVOKESTATIC, "java/lang/Double", "doubleToRawLongBits", "(D)J", false);
        }
    }

    private void load(Kind kind, Address address) {
        if (kind == Kind.TEXT) {
            method.texts();
            place(address);
            code.visitInsn(AALOAD);
            return;
        }
        method.memory();
        place(address);
        code.visitInsn(LALOAD);
        if (kind == Kind.BOOL) {
            code.visitInsn(L2I);
        } else if (kind == Kind.REAL) {
            code.visitMethodInsn(INVOKESTATIC, "java/lang/Double", "longBitsToDouble", "(J)D", false);
        }
    }

    // ---- values

    void value(Node node) {
        if (node instanceof Node.Whole constant) {
            whole(constant.value());
        } else if (node instanceof Node.Bool constant) {
            integer(constant.value() ? 1 : 0);
        } else if (node instanceof Node.Real constant) {
            real(constant.value());
        } else if (node instanceof Node.Text constant) {
            text(constant.value());
        } else if (node instanceof Node.Load load) {
            load(load.kind(), load.address());
        } else if (node instanceof Node.Place place) {
            place(place.address());
            code.visitInsn(I2L);
        } else if (node instanceof Node.Operation operation) {
            value(operation.left());
            value(operation.right());
            code.visitInsn(opcode(operation));
        } else if (node instanceof Node.Negation negation) {
            value(negation.value());
            code.visitInsn(negation.kind() == Kind.REAL ? DNEG : LNEG);
        } else if (node instanceof Node.Inversion inversion) {
            value(inversion.value());
            if (inversion.kind() == Kind.BOOL) {
                code.visitInsn(ICONST_1);
                code.visitInsn(IXOR);
            } else {
                whole(-1);
                code.visitInsn(LXOR);
            }
        } else if (node instanceof Node.Wrapped wrapped) {
            value(wrapped.value());
            wrap(wrapped.bits(), wrapped.signed());
        } else if (node instanceof Node.Single single) {
            value(single.value());
            code.visitInsn(D2F);
            code.visitInsn(F2D);
        } else if (node instanceof Node.AsWhole whole) {
            value(whole.value());
            code.visitInsn(I2L);
        } else if (node instanceof Node.AsReal real) {
            value(real.value());
            code.visitInsn(L2D);
        } else if (node instanceof Node.Invoke invoke) {
            invoke(invoke);
        } else if (node instanceof Node.Call call) {
            call(call);
        } else if (node instanceof Node.Pick pick) {
            pick(pick);
        } else if (node instanceof Node.With with) {
            with.before().forEach(method::action);
            value(with.value());
            with.after().forEach(method::action);
        } else if (node instanceof Node.Choice choice) {
            Label otherwise = new Label();
            Label end = new Label();
            jump(choice.condition(), otherwise, false);
            value(choice.whenTrue());
            code.visitJumpInsn(GOTO, end);
            code.visitLabel(otherwise);
            value(choice.whenFalse());
            code.visitLabel(end);
        } else {
            Label no = new Label();
            Label end = new Label();
            jump(node, no, false);
            code.visitInsn(ICONST_1);
            code.visitJumpInsn(GOTO, end);
            code.visitLabel(no);
            code.visitInsn(ICONST_0);
            code.visitLabel(end);
        }
    }

    private static int opcode(Node.Operation operation) {
        boolean real = operation.kind() == Kind.REAL;
        boolean bool = operation.kind() == Kind.BOOL;
        return switch (operation.operator()) {
            case ADD -> real ? DADD : LADD;
            case SUBTRACT -> real ? DSUB : LSUB;
            case MULTIPLY -> real ? DMUL : LMUL;
            case DIVIDE -> DDIV;
            case AND -> bool ? IAND : LAND;
            case OR -> bool ? IOR : LOR;
            case XOR -> bool ? IXOR : LXOR;
        };
    }

    /** Cuts the whole number on top of the stack to a width. */
    void wrap(int bits, boolean signed) {
        if (bits == 64) {
            return;
        }
        if (signed) {
            code.visitInsn(L2I);
            if (bits < 32) {
                code.visitInsn(bits == 16 ? I2S : I2B);
            }
            code.visitInsn(I2L);
        } else {
            code.visitLdcInsn((1L << bits) - 1);
            code.visitInsn(LAND);
        }
    }

    private void invoke(Node.Invoke invoke) {
        StringBuilder descriptor = new StringBuilder("(");
        if (invoke.frame()) {
            method.frame();
            descriptor.append('L').append(FRAME).append(';');
        }
        for (Node argument : invoke.arguments()) {
            value(argument);
            descriptor.append(argument.kind() == Kind.BOOL ? "Z" : argument.kind().descriptor());
        }
        descriptor.append(')').append(invoke.kind() == Kind.BOOL ? "Z" : invoke.kind().descriptor());
        code.visitMethodInsn(INVOKESTATIC, Type.getInternalName(invoke.owner()), invoke.method(), descriptor.toString(), false);
    }

    private static int slots(Kind kind) {
        return kind == Kind.WHOLE || kind == Kind.REAL ? 2 : 1;
    }

    private void keep(Kind kind, int at) {
        code.visitVarInsn(kind == Kind.WHOLE ? LSTORE : kind == Kind.REAL ? DSTORE : kind == Kind.BOOL ? ISTORE : ASTORE, at);
    }

    private void kept(Kind kind, int at) {
        code.visitVarInsn(kind == Kind.WHOLE ? LLOAD : kind == Kind.REAL ? DLOAD : kind == Kind.BOOL ? ILOAD : ALOAD, at);
    }

    private void pick(Node.Pick pick) {
        int before = method.reserved();
        int selected = method.reserve(1);
        int count = pick.values().size();
        value(pick.selector());
        integer(count);
        code.visitMethodInsn(INVOKESTATIC, OPERATIONS, "selected", "(JI)I", false);
        code.visitVarInsn(ISTORE, selected);
        int[] places = new int[count];
        for (int i = 0; i < count; i++) {
            places[i] = method.reserve(slots(pick.kind()));
            value(pick.values().get(i));
            keep(pick.kind(), places[i]);
        }
        Label[] labels = new Label[count];
        Arrays.setAll(labels, i -> new Label());
        Label end = new Label();
        code.visitVarInsn(ILOAD, selected);
        code.visitTableSwitchInsn(0, count - 1, labels[0], labels);
        for (int i = 0; i < count; i++) {
            code.visitLabel(labels[i]);
            kept(pick.kind(), places[i]);
            code.visitJumpInsn(GOTO, end);
        }
        code.visitLabel(end);
        method.release(before);
    }

    /**
     * Inputs may call the same function again, whose cells are the same: then all of them are worked out before the first is stored.
     */
    private void call(Node.Call call) {
        int before = method.reserved();
        Label end = new Label();
        if (call.enabled() != null) {
            Label on = new Label();
            jump(call.enabled(), on, true);
            result(call);
            code.visitJumpInsn(GOTO, end);
            code.visitLabel(on);
        }
        if (call.inputs().stream().anyMatch(i -> Node.calls(i.value()))) {
            List<Integer> kept = new ArrayList<>();
            for (Action.Store input : call.inputs()) {
                Kind kind = input.value().kind();
                int at = method.reserve(slots(kind));
                value(input.value());
                keep(kind, at);
                kept.add(at);
            }
            for (int i = 0; i < kept.size(); i++) {
                Kind kind = call.inputs().get(i).value().kind();
                int at = kept.get(i);
                store(call.inputs().get(i).to(), kind, () -> kept(kind, at));
            }
        } else {
            for (Action.Store input : call.inputs()) {
                store(input.to(), input.value().kind(), () -> value(input.value()));
            }
        }
        code.visitInsn(ICONST_0);
        method.call(call.unit());
        call.outputs().forEach(method::action);
        result(call);
        code.visitLabel(end);
        method.release(before);
    }

    private void result(Node.Call call) {
        if (call.result() == null) {
            whole(0);
        } else {
            load(call.kind(), call.result());
        }
    }

    private void store(Address to, Kind kind, Runnable value) {
        if (kind == Kind.TEXT) {
            method.texts();
        } else {
            method.memory();
        }
        place(to);
        value.run();
        asCell(kind);
        code.visitInsn(kind == Kind.TEXT ? AASTORE : LASTORE);
    }

    // ---- conditions

    /** Goes on elsewhere when a BOOL has this value, else with what follows. */
    void jump(Node condition, Label target, boolean when) {
        if (condition instanceof Node.Bool constant) {
            if (constant.value() == when) {
                code.visitJumpInsn(GOTO, target);
            }
        } else if (condition instanceof Node.Inversion inversion) {
            jump(inversion.value(), target, !when);
        } else if (condition instanceof Node.Comparison comparison) {
            compare(comparison, target, when);
        } else if (condition instanceof Node.Operation operation && operation.operator() != Node.Operator.XOR && silent(operation.right())) {
            boolean and = operation.operator() == Node.Operator.AND;
            if (and != when) {
                jump(operation.left(), target, when);
                jump(operation.right(), target, when);
            } else {
                Label decided = new Label();
                jump(operation.left(), decided, !when);
                jump(operation.right(), target, when);
                code.visitLabel(decided);
            }
        } else {
            if (condition instanceof Node.Operation operation) {
                value(operation.left());
                value(operation.right());
                code.visitInsn(opcode(operation));
            } else {
                value(condition);
            }
            code.visitJumpInsn(when ? IFNE : IFEQ, target);
        }
    }

    /** Working it out changes nothing and cannot fail: it need not be, where the other side decides. */
    private static boolean silent(Node node) {
        if (node instanceof Node.Load load) {
            return load.kind() != Kind.TEXT && load.address().safe();
        }
        boolean plain = node instanceof Node.Operation || node instanceof Node.Comparison || node instanceof Node.Inversion || node instanceof Node.Wrapped
                || node instanceof Node.Whole || node instanceof Node.Real || node instanceof Node.Bool;
        return plain && node.parts().stream().allMatch(ValueWriter::silent);
    }

    private void compare(Node.Comparison comparison, Label target, boolean when) {
        Node.Relation relation = comparison.relation();
        Kind kind = comparison.left().kind();
        if (kind == Kind.TEXT) {
            value(comparison.left());
            value(comparison.right());
            code.visitMethodInsn(INVOKEVIRTUAL, "java/lang/String", "compareTo", "(Ljava/lang/String;)I", false);
        } else if (kind == Kind.BOOL) {
            value(comparison.left());
            value(comparison.right());
            code.visitJumpInsn(relation == Node.Relation.EQUAL == when ? IF_ICMPEQ : IF_ICMPNE, target);
            return;
        } else if (kind == Kind.REAL) {
            value(comparison.left());
            value(comparison.right());
            /* no number is neither less nor greater nor equal (IEC 60559) */
            code.visitInsn(relation == Node.Relation.LESS || relation == Node.Relation.LESS_OR_EQUAL ? DCMPG : DCMPL);
        } else {
            long flip = comparison.unsigned() && relation != Node.Relation.EQUAL && relation != Node.Relation.NOT_EQUAL ? Long.MIN_VALUE : 0;
            value(comparison.left());
            flip(flip);
            if (comparison.right() instanceof Node.Whole constant) {
                whole(constant.value() ^ flip);
            } else {
                value(comparison.right());
                flip(flip);
            }
            code.visitInsn(LCMP);
        }
        code.visitJumpInsn(switch (relation) {
            case EQUAL -> when ? IFEQ : IFNE;
            case NOT_EQUAL -> when ? IFNE : IFEQ;
            case LESS -> when ? IFLT : IFGE;
            case LESS_OR_EQUAL -> when ? IFLE : IFGT;
            case GREATER -> when ? IFGT : IFLE;
            case GREATER_OR_EQUAL -> when ? IFGE : IFLT;
        }, target);
    }

    /** Whole numbers without sign are compared with their first bit turned over. */
    void flip(long flip) {
        if (flip != 0) {
            whole(flip);
            code.visitInsn(LXOR);
        }
    }

    /** A whole number that lies in a place of the method, turned over. */
    void flipped(int at, long flip) {
        code.visitVarInsn(LLOAD, at);
        flip(flip);
    }
}
