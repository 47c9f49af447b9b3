package rueda.format.tags;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import rueda.format.UnreadableFile;
import rueda.plc.ProcessAddress;
import rueda.plc.TagRow;
import rueda.plc.type.Type;

/**
 * A declared variable or member.
 *
 * @param type    its shape
 * @param address such as %QW4, empty for none
 * @param place   where it stands in the file
 */
record Declaration(String name, Shape type, String address, String comment, String place) {

    /** What a declaration is made of. */
    sealed interface Shape {
        /** An elementary or declared type. */
        record Named(String name) implements Shape {
        }

        record Structure(List<Declaration> members) implements Shape {
        }

        record Array(int from, int to, Shape of) implements Shape {
        }
    }

    /** An enumeration that does not tell its type travels as INT (common practice, no source; the standard leaves it to the maker). */
    static final Shape ENUMERATION = new Shape.Named("INT");

    /** A place that the PLC chooses later (IEC 61131-3, 6.5.5: incompletely specified location; clause from memory). */
    private static final Pattern OPEN = Pattern.compile("%[IQ][XBWDL]?\\*");
    private static final int MOST_ROWS = 20_000;
    private static final int MOST_DEPTH = 20;

    /**
     * The elementary values of declarations, one after the other, each on its boundary.
     *
     * @param types     declared types by their name in lower case
     * @param alignment bytes a value is aligned to at the most: 1 for packed
     * @param counts    what the numbers of addresses count
     */
    static List<TagRow> rows(List<Declaration> variables, Map<String, Shape> types, int alignment, ProcessAddress.Counts counts) {
        Flattener flattener = new Flattener(types, alignment);
        for (Declaration variable : variables) {
            Optional<ProcessAddress> address = ProcessAddress.of(variable.address(), counts);
            String told = variable.address().strip().toUpperCase(Locale.ROOT);
            boolean open = OPEN.matcher(told).matches();
            if (address.isEmpty() && !told.isEmpty() && !open) {
                throw new UnreadableFile(variable.place() + ", address of " + variable.name(), variable.address(), "an address of an input or output such as %QW4, or none", "correct it, or leave variables in the memory of the PLC out");
            }
            flattener.output = open ? (Boolean) (told.charAt(1) == 'Q') : address.map(ProcessAddress::output).orElse(null);
            int start = address.map(ProcessAddress::bitOffset).orElse(flattener.next);
            flattener.next = start;
            flattener.origin = start;
            flattener.add(variable.name(), variable.type(), variable, 0);
        }
        return List.copyOf(flattener.rows);
    }

    private static final class Flattener {
        private final Map<String, Shape> types;
        private final int alignment;
        private final List<TagRow> rows = new ArrayList<>();
        private final Set<String> names = new HashSet<>();
        private Boolean output;
        private int next;
        private int origin;

        Flattener(Map<String, Shape> types, int alignment) {
            this.types = types;
            this.alignment = alignment;
        }

        void add(String name, Shape shape, Declaration at, int depth) {
            if (depth > MOST_DEPTH) {
                throw new UnreadableFile(at.place(), name, "types nested up to " + MOST_DEPTH + " deep, not within themselves", "correct the type");
            }
            if (shape instanceof Shape.Structure structure) {
                align(widest(shape, depth, at));
                for (Declaration member : structure.members()) {
                    add(name + "." + member.name(), member.type(), member, depth + 1);
                }
                align(widest(shape, depth, at));
            } else if (shape instanceof Shape.Array array) {
                for (int i = array.from(); i <= array.to(); i++) {
                    add(name + "_" + i, array.of(), at, depth + 1);
                }
            } else if (shape instanceof Shape.Named named) {
                Type type = Type.named(named.name());
                if (type == null) {
                    Shape declared = types.get(named.name().toLowerCase(Locale.ROOT));
                    if (declared == null) {
                        throw new UnreadableFile(at.place(), named.name(), "an elementary type or one that is declared in the file", "add the declaration of " + named.name());
                    }
                    add(name, declared, at, depth + 1);
                    return;
                }
                if (type.isText() || type == Type.AXIS_REF) {
                    throw new UnreadableFile(at.place(), name + " : " + type, "types of fixed size in process data", "leave it out");
                }
                value(name, type, at);
            }
        }

        private void value(String name, Type type, Declaration at) {
            align(type.bits());
            if (!names.add(name.toLowerCase(Locale.ROOT))) {
                throw new UnreadableFile(at.place(), name, "each name once", "rename one");
            }
            rows.add(new TagRow(name, type, output, next, at.comment()));
            next += type.bits();
            if (rows.size() > MOST_ROWS) {
                throw new UnreadableFile(at.place(), rows.size() + " values", "up to " + MOST_ROWS, "take what belongs to this station");
            }
        }

        /** To the next place a value of so many bits may stand at; a single bit stands anywhere. */
        private void align(int bits) {
            if (bits > 1) {
                int boundary = 8 * Math.max(1, Math.min(alignment, bits / 8));
                next = origin + (next - origin + boundary - 1) / boundary * boundary;
            }
        }

        private int widest(Shape shape, int depth, Declaration at) {
            if (depth > MOST_DEPTH) {
                throw new UnreadableFile(at.place(), at.name(), "types nested up to " + MOST_DEPTH + " deep, not within themselves", "correct the type");
            }
            if (shape instanceof Shape.Structure structure) {
                return structure.members().stream().mapToInt(m -> widest(m.type(), depth + 1, at)).max().orElse(1);
            }
            if (shape instanceof Shape.Array array) {
                return widest(array.of(), depth + 1, at);
            }
            String name = ((Shape.Named) shape).name();
            Type type = Type.named(name);
            Shape declared = types.get(name.toLowerCase(Locale.ROOT));
            return type != null ? type.bits() : declared == null ? 1 : widest(declared, depth + 1, at);
        }
    }
}
