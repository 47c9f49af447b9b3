package rueda.plc.code;

import static org.objectweb.asm.Opcodes.*;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.objectweb.asm.ClassTooLargeException;
import org.objectweb.asm.ClassWriter;
import org.objectweb.asm.MethodTooLargeException;
import org.objectweb.asm.Type;
import rueda.plc.run.CallPlace;
import rueda.plc.run.CompiledUnit;
import rueda.plc.run.Frame;
import rueda.plc.run.Operations;
import rueda.plc.run.ProgramFault;
import rueda.plc.run.StatementPlace;
import rueda.plc.run.Tracer;

/**
 * Makes classes of the Java virtual machine from checked units, by the ASM library. Each keeps the name and the lines of its text, so that
 * a fault is found by the stack.
 */
public final class Generator {

    static final String FRAME = Type.getInternalName(Frame.class);
    static final String OPERATIONS = Type.getInternalName(Operations.class);
    static final String BODY = "(I)I";
    /** The class that holds what the code works on: constants for the just-in-time compiler, because each controller has classes of its own. */
    static final String STATE = ProgramFault.PROGRAM_PACKAGE + "/$State";
    private static final String UNIT = Type.getInternalName(CompiledUnit.class);
    private static final String LOADER = Type.getInternalName(Loader.class);

    static final String TRACER = Type.getInternalName(Tracer.class);

    private final Places places = new Places();
    private final boolean traced;

    private Generator(boolean traced) {
        this.traced = traced;
    }

    /** A unit is too long for the virtual machine. */
    public static final class TooLong extends RuntimeException {
        private final String unit;

        TooLong(String unit) {
            super(unit);
            this.unit = unit;
        }

        /** Its name. */
        public String unit() {
            return unit;
        }
    }

    /** Holds the classes of one controller: they go when nothing runs them any more. */
    public static final class Loader extends ClassLoader {
        private final Frame frame;

        Loader(Frame frame, ClassLoader parent) {
            super(parent);
            this.frame = frame;
        }

        /** What the classes work on; they ask for it when they are loaded. */
        public Frame frame() {
            return frame;
        }

        Class<?> define(byte[] code) {
            return defineClass(null, code, 0, code.length);
        }
    }

    /**
     * What has been made.
     *
     * @param classes    by the names of their units
     * @param statements lines with statements, by the numbers that traced code tells
     * @param traced     every statement tells {@link Frame#tracer} of itself
     */
    public record Compiled(Map<String, byte[]> classes, List<StatementPlace> statements, List<CallPlace> calls, boolean traced) {

        /** Classes that work on a frame. */
        public Loaded load(Frame frame) {
            Loader loader = new Loader(frame, Generator.class.getClassLoader());
            loader.define(state());
            return new Loaded(loader, define(loader));
        }

        private Map<String, CompiledUnit> define(Loader loader) {
            Map<String, CompiledUnit> units = new TreeMap<>();
            Map<String, Class<?>> defined = new TreeMap<>();
            classes.forEach((name, bytes) -> defined.put(name, loader.define(bytes)));
            defined.forEach((name, made) -> {
                try {
                    units.put(name, (CompiledUnit) made.getDeclaredConstructor().newInstance());
                } catch (ReflectiveOperationException broken) {
                    throw new IllegalStateException(broken);
                }
            });
            return units;
        }
    }

    /** Classes that work on one frame. @param units by their names */
    public record Loaded(Loader loader, Map<String, CompiledUnit> units) {

        /** A unit made later that works on the same frame; it goes when nobody holds it any more. */
        public CompiledUnit more(UnitCode unit) {
            Loader inner = new Loader(loader.frame(), loader);
            return compile(List.of(unit), false).define(inner).get(unit.name());
        }
    }

    /** @param traced every statement tells of itself before it runs  @throws TooLong when a unit does not fit into a class, though its statements are spread over methods */
    public static Compiled compile(List<UnitCode> units, boolean traced) {
        Generator generator = new Generator(traced);
        Map<String, byte[]> classes = new TreeMap<>();
        for (UnitCode unit : units) {
            classes.put(unit.name(), generator.bytes(unit));
        }
        return new Compiled(classes, generator.places.statements(), List.copyOf(generator.places.calls()), traced);
    }

    /** The class with the frame and what is in it as constants. */
    private static byte[] state() {
        ClassWriter writer = new ClassWriter(ClassWriter.COMPUTE_MAXS);
        writer.visit(V17, ACC_PUBLIC | ACC_FINAL | ACC_SUPER, STATE, null, "java/lang/Object", null);
        String[][] fields = {{"F", "L" + FRAME + ";", null}, {"M", "[J", "memory"}, {"T", "[Ljava/lang/String;", "texts"}, {"D", "L" + TRACER + ";", "tracer"}, {"C", "[L" + Type.getInternalName(CallPlace.class) + ";", "calls"}};
        for (String[] field : fields) {
            writer.visitField(ACC_PUBLIC | ACC_STATIC | ACC_FINAL, field[0], field[1], null, null).visitEnd();
        }
        var code = writer.visitMethod(ACC_STATIC, "<clinit>", "()V", null, null);
        code.visitCode();
        code.visitLdcInsn(Type.getObjectType(STATE));
        code.visitMethodInsn(INVOKEVIRTUAL, "java/lang/Class", "getClassLoader", "()Ljava/lang/ClassLoader;", false);
        code.visitTypeInsn(CHECKCAST, LOADER);
        code.visitMethodInsn(INVOKEVIRTUAL, LOADER, "frame", "()L" + FRAME + ";", false);
        code.visitFieldInsn(PUTSTATIC, STATE, "F", "L" + FRAME + ";");
        for (String[] field : fields) {
            if (field[2] != null) {
                code.visitFieldInsn(GETSTATIC, STATE, "F", "L" + FRAME + ";");
                code.visitFieldInsn(GETFIELD, FRAME, field[2], field[1]);
                code.visitFieldInsn(PUTSTATIC, STATE, field[0], field[1]);
            }
        }
        code.visitInsn(RETURN);
        code.visitMaxs(0, 0);
        code.visitEnd();
        writer.visitEnd();
        return writer.toByteArray();
    }

    static String className(String unit) {
        return ProgramFault.PROGRAM_PACKAGE + "/" + unit;
    }

    private byte[] bytes(UnitCode unit) {
        ClassWriter writer = new ClassWriter(ClassWriter.COMPUTE_FRAMES) {
            @Override
            protected String getCommonSuperClass(String a, String b) {
                return "java/lang/Object";
            }
        };
        String name = className(unit.name());
        writer.visit(V17, ACC_PUBLIC | ACC_FINAL | ACC_SUPER, name, null, "java/lang/Object", new String[] {UNIT});
        writer.visitSource(unit.file(), null);
        constructor(writer);
        bridge(writer, name, "run", "body");
        bridge(writer, name, "begin", "initial");
        try {
            MethodWriter.write(writer, name, unit, "body", unit.body(), places, traced);
            MethodWriter.write(writer, name, unit, "initial", unit.initial(), places, traced);
            return writer.toByteArray();
        } catch (MethodTooLargeException | ClassTooLargeException | StackOverflowError tooLong) {
            throw new TooLong(unit.name());
        }
    }

    private static void constructor(ClassWriter writer) {
        var code = writer.visitMethod(ACC_PUBLIC, "<init>", "()V", null, null);
        code.visitCode();
        code.visitVarInsn(ALOAD, 0);
        code.visitMethodInsn(INVOKESPECIAL, "java/lang/Object", "<init>", "()V", false);
        code.visitInsn(RETURN);
        code.visitMaxs(0, 0);
        code.visitEnd();
    }

    /** The method of the interface that calls the static one. */
    private static void bridge(ClassWriter writer, String name, String from, String to) {
        var code = writer.visitMethod(ACC_PUBLIC, from, "(I)V", null, null);
        code.visitCode();
        code.visitVarInsn(ILOAD, 1);
        code.visitMethodInsn(INVOKESTATIC, name, to, BODY, false);
        code.visitInsn(POP);
        code.visitInsn(RETURN);
        code.visitMaxs(0, 0);
        code.visitEnd();
    }
}
