package rueda.plc;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import rueda.plc.code.Address;
import rueda.plc.run.FunctionBlock;
import rueda.plc.run.Image;
import rueda.plc.type.ArrayType;
import rueda.plc.type.BlockType;
import rueda.plc.type.DataType;
import rueda.plc.type.ReferenceType;
import rueda.plc.type.StructType;

/** The memory of a program while it is laid out: who has which cells, and what they hold at first. */
final class Storage {

    /** Values of one program: variables, pins of blocks, tags. */
    static final int MOST_CELLS = 100_000;
    /** Values that are listed by name, for the page and the recording. */
    private static final int MOST_LISTED = 20_000;

    /** A variable in memory. @param listed it can be read by its name */
    private record Placed(String name, DataType type, int slot, Image image, boolean listed) {
    }

    /** A function block in Java. @param cell that keeps its number */
    record Native(String name, FunctionBlock.Kind kind, int cell) {
    }

    /** A function block in Structured Text. */
    record Instance(String name, Unit unit, int slot) {
    }

    private final List<Placed> placed = new ArrayList<>();
    private final Map<BlockType, FunctionBlock.Kind> natives = new IdentityHashMap<>();
    private final Map<BlockType, Unit> units = new IdentityHashMap<>();
    private final List<Image> images = new ArrayList<>();
    private final Map<Image, Integer> imageNumbers = new IdentityHashMap<>();
    /** first cells of variables that are declared RETAIN */
    private final BitSet declaredRetained = new BitSet();
    /** cells of values that are retained; known when {@link #variables} has been asked */
    private final BitSet retained = new BitSet();
    private int size;

    void knows(BlockType type, FunctionBlock.Kind kind) {
        natives.put(type, kind);
    }

    void knows(BlockType type, Unit unit) {
        units.put(type, unit);
    }

    FunctionBlock.Kind nativeKind(BlockType type) {
        return natives.get(type);
    }

    Unit unit(BlockType type) {
        return units.get(type);
    }

    /** Cells for a variable. @param listed it can be read by its name */
    Address place(String name, DataType type, Image image, boolean listed) {
        Address address = Address.memory(size);
        placed.add(new Placed(name, type, size, image, listed));
        size += image.cells().length;
        return address;
    }

    /** Its first values are others. */
    void change(int slot, Image image) {
        for (int i = placed.size() - 1; i >= 0; i--) {
            if (placed.get(i).slot() == slot) {
                Placed before = placed.get(i);
                placed.set(i, new Placed(before.name(), before.type(), slot, image, before.listed()));
                return;
            }
        }
    }

    int size() {
        return size;
    }

    /** The variable that begins there keeps its values over a restart. */
    void retain(int slot) {
        declaredRetained.set(slot);
    }

    /** Cells of listed values that are retained. */
    BitSet retained() {
        return retained;
    }

    /** What has been placed since then is forgotten. @param before what {@link #size} was */
    void rewind(int before) {
        placed.removeIf(p -> p.slot() >= before);
        size = before;
    }

    /** More than a program may have. */
    boolean full() {
        return size > MOST_CELLS;
    }

    /** The number by which code names first values. */
    int image(Image image) {
        return imageNumbers.computeIfAbsent(image, i -> {
            images.add(i);
            return images.size() - 1;
        });
    }

    Image[] images() {
        return images.toArray(Image[]::new);
    }

    /** What the whole memory holds at first, but for the numbers of function blocks in Java. */
    Image whole() {
        Image all = Image.blank(size);
        boolean texts = placed.stream().anyMatch(p -> p.image().texts() != null);
        String[] words = texts ? new String[size] : null;
        if (texts) {
            Arrays.fill(words, "");
        }
        for (Placed variable : placed) {
            System.arraycopy(variable.image().cells(), 0, all.cells(), variable.slot(), variable.image().cells().length);
            if (variable.image().texts() != null) {
                System.arraycopy(variable.image().texts(), 0, words, variable.slot(), variable.image().texts().length);
            }
        }
        return new Image(all.cells(), words);
    }

    // ---- what is inside

    /** Values that can be read by their names, in the order of their declarations. */
    List<Variable> variables() {
        List<Variable> variables = new ArrayList<>();
        for (Placed p : placed) {
            if (p.listed()) {
                list(p.name(), p.type(), p.slot(), declaredRetained.get(p.slot()), variables);
            }
        }
        return variables;
    }

    private void list(String name, DataType type, int slot, boolean kept, List<Variable> variables) {
        if (variables.size() >= MOST_LISTED) {
            return;
        }
        if (type.isElementary()) {
            variables.add(new Variable(name, type, slot));
            if (kept) {
                retained.set(slot);
            }
        } else if (type instanceof StructType structure) {
            structure.members().forEach(m -> list(name + "." + m.name(), m.type(), slot + m.offset(), kept, variables));
        } else if (type instanceof BlockType block) {
            Unit unit = units.get(block);
            block.members().stream().filter(m -> m.role() != BlockType.Role.IN_OUT).forEach(m -> list(name + "." + m.name(), m.type(), slot + m.offset(), unit != null && (kept || unit.retained.contains(m.name())), variables));
        } else if (type instanceof ArrayType array && !array.open()) {
            elements(name, array, 0, slot, kept, variables);
        }
    }

    private void elements(String name, ArrayType array, int dimension, int slot, boolean kept, List<Variable> variables) {
        ArrayType.Bound bound = array.bounds().get(dimension);
        boolean last = dimension == array.bounds().size() - 1;
        for (long i = bound.low(); i <= bound.high() && variables.size() < MOST_LISTED; i++) {
            String element = (dimension == 0 ? name + "[" : name + ",") + i;
            int at = slot + (int) (i - bound.low()) * array.stride(dimension);
            if (last) {
                list(element + "]", array.element(), at, kept, variables);
            } else {
                elements(element, array, dimension + 1, at, kept, variables);
            }
        }
    }

    /** Function blocks in Java, wherever they are held. */
    List<Native> natives() {
        List<Native> found = new ArrayList<>();
        placed.forEach(p -> blocks(p.name(), p.type(), p.slot(), found, new ArrayList<>(), new HashMap<>()));
        return found;
    }

    /** Function blocks in Structured Text, inner ones before those that hold them. */
    List<Instance> instances() {
        List<Instance> found = new ArrayList<>();
        placed.forEach(p -> blocks(p.name(), p.type(), p.slot(), new ArrayList<>(), found, new HashMap<>()));
        return found;
    }

    private void blocks(String name, DataType type, int slot, List<Native> java, List<Instance> text, Map<DataType, Boolean> known) {
        if (!holdsBlocks(type, known)) {
            return;
        }
        if (type instanceof BlockType block) {
            FunctionBlock.Kind kind = natives.get(block);
            if (kind != null) {
                java.add(new Native(name, kind, slot + kind.pins().size()));
                return;
            }
            block.members().stream().filter(m -> m.role() != BlockType.Role.IN_OUT).forEach(m -> blocks(name + "." + m.name(), m.type(), slot + m.offset(), java, text, known));
            text.add(new Instance(name, units.get(block), slot));
        } else if (type instanceof StructType structure) {
            structure.members().forEach(m -> blocks(name + "." + m.name(), m.type(), slot + m.offset(), java, text, known));
        } else if (type instanceof ArrayType array) {
            long count = array.elements();
            for (int i = 0; i < count; i++) {
                blocks(name + "[" + index(array, i) + "]", array.element(), slot + i * array.element().cells(), java, text, known);
            }
        }
    }

    private static String index(ArrayType array, int element) {
        StringBuilder text = new StringBuilder();
        int rest = element;
        for (int d = array.bounds().size() - 1; d >= 0; d--) {
            ArrayType.Bound bound = array.bounds().get(d);
            text.insert(0, (d == 0 ? "" : ",") + (bound.low() + rest % bound.length()));
            rest /= (int) bound.length();
        }
        return text.toString();
    }

    private static boolean holdsBlocks(DataType type, Map<DataType, Boolean> known) {
        if (type.isElementary() || type instanceof ReferenceType) {
            return false;
        }
        if (type instanceof BlockType) {
            return true;
        }
        if (type instanceof ArrayType array) {
            return !array.open() && holdsBlocks(array.element(), known);
        }
        Boolean before = known.get(type);
        if (before == null) {
            before = ((StructType) type).members().stream().anyMatch(m -> holdsBlocks(m.type(), known));
            known.put(type, before);
        }
        return before;
    }
}
