package rueda.bench;

import java.lang.reflect.Field;
import java.lang.reflect.InaccessibleObjectException;
import java.lang.reflect.Modifier;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;

/**
 * Everything that can change in some objects and whatever they hold, kept once and compared later: bit for bit, and which objects they are. It looks into
 * the objects themselves, so that nothing that is added to them one day can be forgotten. What it does not know it takes for changing always.
 *
 * <p>Cost: some nanoseconds for each value, and memory only when objects were exchanged. Not thread-safe.
 */
final class StillState {

    private static final String OURS = "rueda.";
    private static final long[] NO_VALUES = new long[0];

    /** One object: its values and references that are not final. */
    private static final class Part {
        final Object of;
        final Field[] values;
        final Field[] references;
        final long[] kept;
        final Object[] keptReferences;

        Part(Object of, Field[] values, Field[] references) {
            this.of = of;
            this.values = values;
            this.references = references;
            kept = values.length == 0 ? NO_VALUES : new long[values.length];
            keptReferences = new Object[references.length];
        }
    }

    /** One array of values or of references, or a list, and what was in it. */
    private static final class Row {
        final Object of;
        Object kept;

        Row(Object of) {
            this.of = of;
        }
    }

    private static final Map<Class<?>, Field[][]> FIELDS = new java.util.concurrent.ConcurrentHashMap<>();

    private final Object[] roots;
    private final List<Part> parts = new ArrayList<>();
    private final List<Row> rows = new ArrayList<>();
    private boolean known;
    private boolean stale = true;

    StillState(Object... roots) {
        this.roots = roots;
    }

    /** Keeps everything as it is now. */
    void keep() {
        if (stale) {
            walk();
        }
        try {
            for (int i = 0; i < parts.size(); i++) {
                Part part = parts.get(i);
                for (int v = 0; v < part.values.length; v++) {
                    part.kept[v] = value(part.values[v], part.of);
                }
                for (int r = 0; r < part.references.length; r++) {
                    part.keptReferences[r] = part.references[r].get(part.of);
                }
            }
        } catch (IllegalAccessException impossible) {
            throw new IllegalStateException(impossible);
        }
        for (int i = 0; i < rows.size(); i++) {
            copy(rows.get(i));
        }
    }

    /** Nothing has changed since it was kept. */
    boolean same() {
        if (stale || !known) {
            return false;
        }
        try {
            for (int i = 0; i < parts.size(); i++) {
                Part part = parts.get(i);
                for (int r = 0; r < part.references.length; r++) {
                    if (part.references[r].get(part.of) != part.keptReferences[r]) {
                        stale = true;
                        return false;
                    }
                }
                for (int v = 0; v < part.values.length; v++) {
                    if (value(part.values[v], part.of) != part.kept[v]) {
                        return false;
                    }
                }
            }
        } catch (IllegalAccessException impossible) {
            throw new IllegalStateException(impossible);
        }
        for (int i = 0; i < rows.size(); i++) {
            if (!equal(rows.get(i))) {
                stale |= rows.get(i).of instanceof Object[] || rows.get(i).of instanceof ArrayList;
                return false;
            }
        }
        return true;
    }

    private static long value(Field field, Object of) throws IllegalAccessException {
        Class<?> type = field.getType();
        if (type == double.class) {
            return Double.doubleToRawLongBits(field.getDouble(of));
        } else if (type == boolean.class) {
            return field.getBoolean(of) ? 1 : 0;
        } else if (type == float.class) {
            return Float.floatToRawIntBits(field.getFloat(of));
        }
        return type == char.class ? field.getChar(of) : field.getLong(of);
    }

    private static void copy(Row row) {
        if (row.of instanceof double[] values) {
            row.kept = row.kept instanceof double[] kept ? into(values, kept) : values.clone();
        } else if (row.of instanceof long[] values) {
            row.kept = row.kept instanceof long[] kept ? into(values, kept) : values.clone();
        } else if (row.of instanceof int[] values) {
            row.kept = row.kept instanceof int[] kept ? into(values, kept) : values.clone();
        } else if (row.of instanceof boolean[] values) {
            row.kept = row.kept instanceof boolean[] kept ? into(values, kept) : values.clone();
        } else if (row.of instanceof byte[] values) {
            row.kept = row.kept instanceof byte[] kept ? into(values, kept) : values.clone();
        } else {
            row.kept = row.of instanceof ArrayList<?> list ? list.toArray() : ((Object[]) row.of).clone();
        }
    }

    private static Object into(Object values, Object kept) {
        System.arraycopy(values, 0, kept, 0, java.lang.reflect.Array.getLength(values));
        return kept;
    }

    private static boolean equal(Row row) {
        if (row.of instanceof double[] values) {
            return Arrays.equals(values, (double[]) row.kept);
        } else if (row.of instanceof long[] values) {
            return Arrays.equals(values, (long[]) row.kept);
        } else if (row.of instanceof int[] values) {
            return Arrays.equals(values, (int[]) row.kept);
        } else if (row.of instanceof boolean[] values) {
            return Arrays.equals(values, (boolean[]) row.kept);
        } else if (row.of instanceof byte[] values) {
            return Arrays.equals(values, (byte[]) row.kept);
        }
        Object[] before = (Object[]) row.kept;
        ArrayList<?> list = row.of instanceof ArrayList<?> one ? one : null;
        boolean same = list == null || list.size() == before.length;
        for (int i = 0; i < before.length && same; i++) {
            same = (list == null ? ((Object[]) row.of)[i] : list.get(i)) == before[i];
        }
        return same;
    }

    // ---- what there is

    private void walk() {
        parts.clear();
        rows.clear();
        known = true;
        stale = false;
        IdentityHashMap<Object, Boolean> seen = new IdentityHashMap<>();
        for (Object root : roots) {
            look(root, seen);
        }
    }

    private void look(Object of, IdentityHashMap<Object, Boolean> seen) {
        if (of == null || of instanceof Record || of instanceof Enum || of instanceof String || of instanceof Number || of instanceof Boolean || of instanceof Class || seen.put(of, true) != null) {
            return;
        }
        Class<?> type = of.getClass();
        if (type.isArray()) {
            array(of, seen);
        } else if (of instanceof Collection<?> list && type.getName().startsWith("java.util.ImmutableCollections")) {
            list.forEach(element -> look(element, seen));
        } else if (of instanceof ArrayList<?> list) {
            rows.add(new Row(of));
            list.forEach(element -> look(element, seen));
        } else if (type.getName().startsWith(OURS) && !type.isHidden()) {
            object(of, seen);
        } else {
            /* also a lambda: what it has caught cannot be seen */
            known = false;
        }
    }

    private void array(Object of, IdentityHashMap<Object, Boolean> seen) {
        Class<?> element = of.getClass().getComponentType();
        if (element.isPrimitive() && !(of instanceof double[] || of instanceof long[] || of instanceof int[] || of instanceof boolean[] || of instanceof byte[])) {
            known = false;
            return;
        }
        rows.add(new Row(of));
        if (of instanceof Object[] objects) {
            for (Object one : objects) {
                look(one, seen);
            }
        }
    }

    private void object(Object of, IdentityHashMap<Object, Boolean> seen) {
        Field[][] fields = FIELDS.computeIfAbsent(of.getClass(), StillState::fields);
        if (fields[0].length + fields[1].length > 0) {
            parts.add(new Part(of, fields[0], fields[1]));
        }
        try {
            for (Field reference : fields[1]) {
                look(reference.get(of), seen);
            }
            for (Field reference : fields[2]) {
                look(reference.get(of), seen);
            }
        } catch (IllegalAccessException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    /** Values that can change, references that can, and references that cannot. */
    private static Field[][] fields(Class<?> type) {
        List<Field> values = new ArrayList<>();
        List<Field> references = new ArrayList<>();
        List<Field> fixed = new ArrayList<>();
        for (Class<?> c = type; c != null && c != Object.class; c = c.getSuperclass()) {
            for (Field field : c.getDeclaredFields()) {
                boolean isFinal = Modifier.isFinal(field.getModifiers());
                if (Modifier.isStatic(field.getModifiers()) || field.getType().isPrimitive() && isFinal) {
                    continue;
                }
                try {
                    field.setAccessible(true);
                } catch (InaccessibleObjectException closed) {
                    throw new IllegalStateException(closed);
                }
                (field.getType().isPrimitive() ? values : isFinal ? fixed : references).add(field);
            }
        }
        return new Field[][] {values.toArray(Field[]::new), references.toArray(Field[]::new), fixed.toArray(Field[]::new)};
    }
}
