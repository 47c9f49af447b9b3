package rueda.plc.code;

import static org.objectweb.asm.Opcodes.*;
import static rueda.plc.code.Generator.BODY;
import static rueda.plc.code.Generator.FRAME;
import static rueda.plc.code.Generator.OPERATIONS;
import static rueda.plc.code.Generator.STATE;
import static rueda.plc.code.Generator.TRACER;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.objectweb.asm.ClassWriter;
import org.objectweb.asm.Label;
import org.objectweb.asm.MethodVisitor;
import rueda.plc.run.Frame;
import rueda.plc.run.Tracer;

/**
 * Writes statements as one method {@code static int name(int b)}, which says how to go on: 0 with what follows, else
 * {@link #EXIT}, {@link #CONTINUE} or {@link #RETURN} of what it stands in.
 *
 * <p>Statements that run one after the other are counted together, where they begin. Where code is traced, each tells a {@link Tracer} of itself.
 */
final class MethodWriter {

    private static final int GO_ON = 0;
    private static final int EXIT = 1;
    private static final int CONTINUE = 2;
    private static final int RETURN_NOW = 3;

    /** A CASE with more values than this asks one after the other. */
    private static final int MOST_SWITCHED = 1024;

    private static final int B = 0;
    private static final int FIRST_FREE = 1;

    private final ClassWriter writer;
    private final String owner;
    private final UnitCode unit;
    private final Places places;
    /** Every statement tells of itself before it runs. */
    private final boolean traced;
    private final MethodVisitor code;
    private final int[] parts;
    private final ValueWriter values;
    /** Where the method keeps the places of what was lent, by their cells. */
    private final Map<Address, Integer> lent = new HashMap<>();
    private int free = FIRST_FREE;
    private int lineNow;
    /** Where EXIT and CONTINUE go, null where the loop is outside of this method. */
    private Label exit;
    private Label next;

    private MethodWriter(ClassWriter writer, String owner, UnitCode unit, String name, Places places, boolean traced, int[] parts) {
        this.writer = writer;
        this.owner = owner;
        this.unit = unit;
        this.places = places;
        this.traced = traced;
        this.parts = parts;
        code = writer.visitMethod(ACC_PUBLIC | ACC_STATIC, name, BODY, null, null);
        values = new ValueWriter(code, this);
    }

    static void write(ClassWriter writer, String owner, UnitCode unit, String name, List<Action> actions, Places places, boolean traced) {
        new MethodWriter(writer, owner, unit, name, places, traced, new int[1]).method(Outline.of(actions));
    }

    private void method(List<Action> actions) {
        code.visitCode();
        inMemory(B);
        code.visitVarInsn(ISTORE, B);
        for (Address cell : unit.lent()) {
            int at = reserve(1);
            memory();
            values.place(cell);
            code.visitInsn(LALOAD);
            code.visitInsn(L2I);
            code.visitVarInsn(ISTORE, at);
            inMemory(at);
            code.visitVarInsn(ISTORE, at);
            lent.put(cell, at);
        }
        list(actions);
        code.visitInsn(ICONST_0);
        code.visitInsn(IRETURN);
        code.visitMaxs(0, 0);
        code.visitEnd();
    }

    /**
     * Tells the just-in-time compiler that a place is neither negative nor large: adding a distance to it cannot overflow then, and two
     * distances from it are two cells, so that values stay in registers.
     */
    private void inMemory(int local) {
        code.visitVarInsn(ILOAD, local);
        values.integer(Frame.MOST_CELLS - 1);
        code.visitInsn(IAND);
    }

    void frame() {
        code.visitFieldInsn(GETSTATIC, STATE, "F", "L" + FRAME + ";");
    }

    void memory() {
        code.visitFieldInsn(GETSTATIC, STATE, "M", "[J");
    }

    void texts() {
        code.visitFieldInsn(GETSTATIC, STATE, "T", "[Ljava/lang/String;");
    }

    /** Where the method keeps the place that this cell holds, or null. */
    Integer lent(Address cell) {
        return lent.get(cell);
    }

    /** A place for a value between two statements. @param slots 1, or 2 for long and double */
    int reserve(int slots) {
        int reserved = free;
        free += slots;
        return reserved;
    }

    /** The places since then are free again. */
    void release(int from) {
        free = from;
    }

    int reserved() {
        return free;
    }

    /** From here on the code belongs to this line. */
    void line(int line) {
        if (line > 0 && line != lineNow) {
            Label here = new Label();
            code.visitLabel(here);
            code.visitLineNumber(line, here);
            lineNow = line;
        }
    }

    // ---- lists, and what is counted

    /** The head runs once, and nothing of what follows before it. */
    private static boolean headCounts(Action action) {
        return action instanceof Action.If || action instanceof Action.Case || action instanceof Action.For || action instanceof Action.While;
    }

    private static boolean simple(Action action) {
        return action instanceof Action.Store || action instanceof Action.Copy || action instanceof Action.Reset || action instanceof Action.Evaluate
                || action instanceof Action.CallBlock || action instanceof Action.CallNative || action instanceof Action.Group group && group.actions().stream().allMatch(MethodWriter::simple)
                || action instanceof Action.Keep keep && keep.actions().stream().allMatch(MethodWriter::simple);
    }

    private void list(List<Action> actions) {
        list(actions, 0);
    }

    /** @param before a line that is counted before them, 0 for none */
    private void list(List<Action> actions, int before) {
        int counted = 0;
        if (actions.isEmpty()) {
            count(lines(before));
            trace(before);
        }
        for (int i = 0; i < actions.size(); i++) {
            if (i >= counted) {
                List<Integer> lines = lines(i == 0 ? before : 0);
                counted = i;
                while (counted < actions.size() && simple(actions.get(counted))) {
                    lines.addAll(lines(actions.get(counted++).line()));
                }
                if (counted < actions.size()) {
                    lines.addAll(lines(counts(actions.get(counted)) ? actions.get(counted).line() : 0));
                    counted++;
                }
                count(lines);
            }
            trace(i == 0 ? before : 0);
            trace(counts(actions.get(i)) ? actions.get(i).line() : 0);
            action(actions.get(i));
        }
    }

    /** A line that counts, 0 for none. */
    private static List<Integer> lines(int line) {
        return line > 0 ? new ArrayList<>(List.of(line)) : new ArrayList<>();
    }

    /** It counts as a statement where it stands; the others count what is in them. */
    private static boolean counts(Action action) {
        boolean leaves = action instanceof Action.Exit || action instanceof Action.Continue || action instanceof Action.Return;
        return simple(action) || headCounts(action) || leaves || action instanceof Action.Group || action instanceof Action.Keep;
    }

    private void count(List<Integer> lines) {
        if (lines.isEmpty()) {
            return;
        }
        line(lines.get(0));
        frame();
        code.visitInsn(DUP);
        code.visitFieldInsn(GETFIELD, FRAME, "budget", "I");
        values.integer(lines.size());
        code.visitInsn(ISUB);
        code.visitFieldInsn(PUTFIELD, FRAME, "budget", "I");
    }

    /** The line is about to run. */
    private void trace(int at) {
        if (traced && at > 0) {
            line(at);
            tracer();
            values.integer(places.statement(unit, at));
            code.visitVarInsn(ILOAD, B);
            code.visitMethodInsn(INVOKEVIRTUAL, TRACER, "at", "(II)V", false);
        }
    }

    private void tracer() {
        code.visitFieldInsn(GETSTATIC, STATE, "D", "L" + TRACER + ";");
    }

    /** Calls another unit; its first cell is on the stack. */
    void call(String called) {
        if (traced) {
            tracer();
            code.visitMethodInsn(INVOKEVIRTUAL, TRACER, "enter", "()V", false);
        }
        code.visitMethodInsn(INVOKESTATIC, Generator.className(called), "body", BODY, false);
        code.visitInsn(POP);
        if (traced) {
            tracer();
            code.visitMethodInsn(INVOKEVIRTUAL, TRACER, "leave", "()V", false);
        }
    }

    private void check() {
        frame();
        code.visitMethodInsn(INVOKEVIRTUAL, FRAME, "check", "()V", false);
    }

    // ---- statements

    void action(Action action) {
        line(action.line());
        if (action instanceof Action.Store store) {
            store(store);
        } else if (action instanceof Action.Copy copy) {
            copy(copy);
        } else if (action instanceof Action.Reset reset) {
            frame();
            values.place(reset.to());
            values.integer(reset.image());
            code.visitMethodInsn(INVOKEVIRTUAL, FRAME, "reset", "(II)V", false);
        } else if (action instanceof Action.Evaluate evaluate) {
            values.value(evaluate.value());
            code.visitInsn(evaluate.value().kind() == Node.Kind.WHOLE || evaluate.value().kind() == Node.Kind.REAL ? POP2 : POP);
        } else if (action instanceof Action.CallBlock call) {
            values.place(call.instance());
            call(call.unit());
        } else if (action instanceof Action.CallNative call) {
            callNative(call);
        } else if (action instanceof Action.Keep keep) {
            keep(keep);
        } else if (action instanceof Action.Group group) {
            group.actions().forEach(this::action);
        } else if (action instanceof Action.If choice) {
            choice(choice);
        } else if (action instanceof Action.Case choice) {
            select(choice);
        } else if (action instanceof Action.For loop) {
            count(loop);
        } else if (action instanceof Action.While loop) {
            loop(loop);
        } else if (action instanceof Action.Repeat loop) {
            loop(loop);
        } else if (action instanceof Action.Part part) {
            part(part);
        } else {
            leave(action instanceof Action.Exit ? EXIT : action instanceof Action.Continue ? CONTINUE : RETURN_NOW);
        }
    }

    private void store(Action.Store store) {
        boolean text = store.value().kind() == Node.Kind.TEXT;
        if (text) {
            texts();
        } else {
            memory();
        }
        values.place(store.to());
        values.value(store.value());
        values.asCell(store.value().kind());
        code.visitInsn(text ? AASTORE : LASTORE);
    }

    private void copy(Action.Copy copy) {
        if (copy.texts()) {
            frame();
            values.place(copy.from());
            values.place(copy.to());
            values.integer(copy.cells());
            code.visitMethodInsn(INVOKEVIRTUAL, FRAME, "copy", "(III)V", false);
            return;
        }
        memory();
        values.place(copy.from());
        memory();
        values.place(copy.to());
        values.integer(copy.cells());
        code.visitMethodInsn(INVOKESTATIC, "java/lang/System", "arraycopy", "(Ljava/lang/Object;ILjava/lang/Object;II)V", false);
    }

    private void keep(Action.Keep keep) {
        int before = reserved();
        int at = reserve(1);
        values.place(keep.place());
        code.visitVarInsn(ISTORE, at);
        lent.put(keep.cell(), at);
        keep.actions().forEach(this::action);
        lent.remove(keep.cell());
        release(before);
    }

    private void callNative(Action.CallNative call) {
        int before = reserved();
        int at = reserve(1);
        values.place(call.instance());
        code.visitVarInsn(ISTORE, at);
        frame();
        code.visitFieldInsn(GETSTATIC, STATE, "C", "[Lrueda/plc/run/CallPlace;");
        values.integer(places.call(unit.file(), call.line()));
        code.visitInsn(AALOAD);
        code.visitFieldInsn(PUTFIELD, FRAME, "call", "Lrueda/plc/run/CallPlace;");
        frame();
        code.visitFieldInsn(GETFIELD, FRAME, "blocks", "[Lrueda/plc/run/FunctionBlock;");
        memory();
        code.visitVarInsn(ILOAD, at);
        values.integer(call.number());
        code.visitInsn(IADD);
        code.visitInsn(LALOAD);
        code.visitInsn(L2I);
        code.visitInsn(AALOAD);
        frame();
        code.visitVarInsn(ILOAD, at);
        code.visitMethodInsn(INVOKEINTERFACE, "rueda/plc/run/FunctionBlock", "call", "(L" + FRAME + ";I)V", true);
        release(before);
    }

    private void leave(int how) {
        if (how == EXIT && exit != null) {
            code.visitJumpInsn(GOTO, exit);
        } else if (how == CONTINUE && next != null) {
            code.visitJumpInsn(GOTO, next);
        } else {
            values.integer(how);
            code.visitInsn(IRETURN);
        }
    }

    private void choice(Action.If choice) {
        Label end = new Label();
        for (int i = 0; i < choice.branches().size(); i++) {
            Action.Branch branch = choice.branches().get(i);
            if (i > 0) {
                count(lines(branch.line()));
                trace(branch.line());
            }
            line(branch.line());
            Label otherwise = new Label();
            values.jump(branch.condition(), otherwise, false);
            list(branch.body());
            code.visitJumpInsn(GOTO, end);
            code.visitLabel(otherwise);
            lineNow = 0;
        }
        list(choice.otherwise());
        code.visitLabel(end);
        lineNow = 0;
    }

    private void select(Action.Case choice) {
        int before = reserved();
        int selected = reserve(2);
        values.value(choice.selector());
        code.visitVarInsn(LSTORE, selected);
        Label otherwise = new Label();
        Label end = new Label();
        Label[] bodies = new Label[choice.bodies().size()];
        Arrays.setAll(bodies, i -> new Label());
        TreeMap<Integer, Label> singles = singles(choice, bodies);
        if (singles != null) {
            code.visitVarInsn(LLOAD, selected);
            code.visitInsn(L2I);
            code.visitInsn(I2L);
            code.visitVarInsn(LLOAD, selected);
            code.visitInsn(LCMP);
            code.visitJumpInsn(IFNE, otherwise);
            code.visitVarInsn(LLOAD, selected);
            code.visitInsn(L2I);
            jump(singles, otherwise);
        } else {
            for (Action.Label label : choice.labels()) {
                one(label, selected, choice.unsigned(), bodies[label.body()]);
            }
            code.visitJumpInsn(GOTO, otherwise);
        }
        for (int i = 0; i < bodies.length; i++) {
            code.visitLabel(bodies[i]);
            lineNow = 0;
            list(choice.bodies().get(i));
            code.visitJumpInsn(GOTO, end);
        }
        code.visitLabel(otherwise);
        lineNow = 0;
        list(choice.otherwise());
        code.visitLabel(end);
        lineNow = 0;
        release(before);
    }

    /** Every value by itself, or null where there are too many, or some beyond 32 bits. */
    private static TreeMap<Integer, Label> singles(Action.Case choice, Label[] bodies) {
        TreeMap<Integer, Label> singles = new TreeMap<>();
        for (Action.Label label : choice.labels()) {
            boolean fits = label.low() >= Integer.MIN_VALUE && label.high() <= Integer.MAX_VALUE && label.low() <= label.high();
            if (!fits || singles.size() + label.high() - label.low() >= MOST_SWITCHED) {
                return null;
            }
            for (long value = label.low(); value <= label.high(); value++) {
                singles.putIfAbsent((int) value, bodies[label.body()]);
            }
        }
        return singles.isEmpty() ? null : singles;
    }

    private void jump(TreeMap<Integer, Label> singles, Label otherwise) {
        long span = (long) singles.lastKey() - singles.firstKey() + 1;
        if (span <= 2L * singles.size() + 8) {
            Label[] table = new Label[(int) span];
            for (int i = 0; i < table.length; i++) {
                table[i] = singles.getOrDefault(singles.firstKey() + i, otherwise);
            }
            code.visitTableSwitchInsn(singles.firstKey(), singles.lastKey(), otherwise, table);
        } else {
            code.visitLookupSwitchInsn(otherwise, singles.keySet().stream().mapToInt(Integer::intValue).toArray(), singles.values().toArray(Label[]::new));
        }
    }

    private void one(Action.Label label, int selected, boolean unsigned, Label body) {
        Label not = new Label();
        long flip = unsigned ? Long.MIN_VALUE : 0;
        values.flipped(selected, flip);
        values.whole(label.low() ^ flip);
        code.visitInsn(LCMP);
        if (label.low() == label.high()) {
            code.visitJumpInsn(IFEQ, body);
            return;
        }
        code.visitJumpInsn(IFLT, not);
        values.flipped(selected, flip);
        values.whole(label.high() ^ flip);
        code.visitInsn(LCMP);
        code.visitJumpInsn(IFLE, body);
        code.visitLabel(not);
    }

    // ---- loops

    /** Body of a loop: EXIT and CONTINUE go to these places. Each round counts as a statement of the loop's line. */
    private void body(List<Action> actions, int line, Label end, Label round) {
        Label exitBefore = exit;
        Label nextBefore = next;
        exit = end;
        next = round;
        check();
        list(actions, line);
        exit = exitBefore;
        next = nextBefore;
    }

    /**
     * FOR evaluates its bounds and its step once, before the first round, and tests before each round (IEC 61131-3, iteration statements).
     * Where the counter's type does not hold the next value the loop ends.
     */
    private void count(Action.For loop) {
        int before = reserved();
        int end = reserve(2);
        int step = reserve(2);
        int upward = reserve(1);
        boolean unsigned = loop.bits() == 64 && !loop.signed();
        long flip = unsigned ? Long.MIN_VALUE : 0;
        values.value(loop.to());
        values.flip(flip);
        code.visitVarInsn(LSTORE, end);
        boolean fixed = loop.step() instanceof Node.Whole;
        boolean up = fixed && (!loop.signed() || ((Node.Whole) loop.step()).value() > 0);
        if (!fixed) {
            values.value(loop.step());
            code.visitMethodInsn(INVOKESTATIC, OPERATIONS, "step", "(J)J", false);
            code.visitInsn(DUP2);
            code.visitVarInsn(LSTORE, step);
            values.whole(0);
            code.visitInsn(LCMP);
            code.visitVarInsn(ISTORE, upward);
        }
        action(new Action.Store(loop.line(), loop.counter(), loop.from()));
        Label again = new Label();
        Label round = new Label();
        Label done = new Label();
        code.visitLabel(again);
        lineNow = 0;
        line(loop.line());
        if (fixed) {
            beyond(loop.counter(), flip, end, up, done);
        } else {
            Label down = new Label();
            Label go = new Label();
            if (loop.signed()) {
                code.visitVarInsn(ILOAD, upward);
                code.visitJumpInsn(IFLT, down);
            }
            beyond(loop.counter(), flip, end, true, done);
            code.visitJumpInsn(GOTO, go);
            code.visitLabel(down);
            beyond(loop.counter(), flip, end, false, done);
            code.visitLabel(go);
        }
        body(loop.body(), loop.line(), done, round);
        code.visitLabel(round);
        lineNow = 0;
        line(loop.line());
        further(loop, step, fixed, done);
        code.visitJumpInsn(GOTO, again);
        code.visitLabel(done);
        lineNow = 0;
        release(before);
    }

    /** Leaves the loop where the counter is beyond its end. */
    private void beyond(Address counter, long flip, int end, boolean up, Label done) {
        values.value(new Node.Load(Node.Kind.WHOLE, counter));
        values.flip(flip);
        code.visitVarInsn(LLOAD, end);
        code.visitInsn(LCMP);
        code.visitJumpInsn(up ? IFGT : IFLT, done);
    }

    /** The counter takes its next value, or the loop ends because its type does not hold it. */
    private void further(Action.For loop, int step, boolean fixed, Label done) {
        int before = reserved();
        int now = reserve(2);
        int then = reserve(2);
        values.value(new Node.Load(Node.Kind.WHOLE, loop.counter()));
        code.visitInsn(DUP2);
        code.visitVarInsn(LSTORE, now);
        if (fixed) {
            values.value(loop.step());
        } else {
            code.visitVarInsn(LLOAD, step);
        }
        code.visitInsn(LADD);
        code.visitInsn(DUP2);
        code.visitVarInsn(LSTORE, then);
        if (loop.bits() == 64) {
            /* a sum that has wrapped lies on the wrong side of the value before */
            code.visitVarInsn(LLOAD, now);
            if (fixed) {
                values.value(loop.step());
            } else {
                code.visitVarInsn(LLOAD, step);
            }
            code.visitMethodInsn(INVOKESTATIC, OPERATIONS, loop.signed() ? "wrapped" : "wrappedUnsigned", "(JJJ)Z", false);
            code.visitJumpInsn(IFNE, done);
        } else {
            values.wrap(loop.bits(), loop.signed());
            code.visitVarInsn(LLOAD, then);
            code.visitInsn(LCMP);
            code.visitJumpInsn(IFNE, done);
        }
        memory();
        values.place(loop.counter());
        code.visitVarInsn(LLOAD, then);
        code.visitInsn(LASTORE);
        release(before);
    }

    private void loop(Action.While loop) {
        Label again = new Label();
        Label round = new Label();
        Label done = new Label();
        code.visitLabel(again);
        lineNow = 0;
        line(loop.line());
        values.jump(loop.condition(), done, false);
        body(loop.body(), loop.line(), done, round);
        code.visitLabel(round);
        code.visitJumpInsn(GOTO, again);
        code.visitLabel(done);
        lineNow = 0;
    }

    private void loop(Action.Repeat loop) {
        Label again = new Label();
        Label round = new Label();
        Label done = new Label();
        code.visitLabel(again);
        lineNow = 0;
        line(loop.line());
        body(loop.body(), loop.line(), done, round);
        code.visitLabel(round);
        lineNow = 0;
        line(loop.untilLine());
        values.jump(loop.until(), again, false);
        code.visitLabel(done);
        lineNow = 0;
    }

    // ---- parts

    private void part(Action.Part part) {
        String name = "part" + ++parts[0];
        new MethodWriter(writer, owner, unit, name, places, traced, parts).method(part.actions());
        code.visitVarInsn(ILOAD, B);
        code.visitMethodInsn(INVOKESTATIC, owner, name, BODY, false);
        int how = Leaving.of(part.actions(), false);
        if (how == 0) {
            code.visitInsn(POP);
            return;
        }
        int before = reserved();
        int signal = reserve(1);
        code.visitVarInsn(ISTORE, signal);
        for (int possible = EXIT; possible <= RETURN_NOW; possible++) {
            if ((how >> possible & 1) != 0) {
                Label not = new Label();
                code.visitVarInsn(ILOAD, signal);
                values.integer(possible);
                code.visitJumpInsn(IF_ICMPNE, not);
                leave(possible);
                code.visitLabel(not);
                lineNow = 0;
            }
        }
        release(before);
    }

    /** How statements may leave what they stand in: a bit for each of {@link #EXIT}, {@link #CONTINUE}, {@link #RETURN_NOW}. */
    private static final class Leaving {

        static int of(List<Action> actions, boolean inLoop) {
            int how = GO_ON;
            for (Action action : actions) {
                how |= of(action, inLoop);
            }
            return how;
        }

        private static int of(Action action, boolean inLoop) {
            if (action instanceof Action.Exit) {
                return inLoop ? 0 : 1 << EXIT;
            }
            if (action instanceof Action.Continue) {
                return inLoop ? 0 : 1 << CONTINUE;
            }
            if (action instanceof Action.Return) {
                return 1 << RETURN_NOW;
            }
            if (action instanceof Action.If choice) {
                return choice.branches().stream().mapToInt(b -> of(b.body(), inLoop)).reduce(of(choice.otherwise(), inLoop), (a, b) -> a | b);
            }
            if (action instanceof Action.Case choice) {
                return choice.bodies().stream().mapToInt(b -> of(b, inLoop)).reduce(of(choice.otherwise(), inLoop), (a, b) -> a | b);
            }
            if (action instanceof Action.Group group) {
                return of(group.actions(), inLoop);
            }
            if (action instanceof Action.Keep keep) {
                return of(keep.actions(), inLoop);
            }
            if (action instanceof Action.Part part) {
                return of(part.actions(), inLoop);
            }
            return action instanceof Action.For loop ? of(loop.body(), true) : action instanceof Action.While w ? of(w.body(), true) : action instanceof Action.Repeat r ? of(r.body(), true) : 0;
        }
    }
}
