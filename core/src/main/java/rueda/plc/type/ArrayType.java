package rueda.plc.type;

import java.util.List;

/**
 * An array. The last index runs fastest.
 *
 * @param bounds  of each dimension, at least one; null bounds where a VAR_IN_OUT takes any length
 * @param element type of an element
 */
public record ArrayType(List<Bound> bounds, DataType element) implements DataType {

    /** @param low first index  @param high last index, not below low; both 0 and open where any length is taken */
    public record Bound(long low, long high, boolean open) {
        public static final Bound OPEN = new Bound(0, 0, true);

        public Bound(long low, long high) {
            this(low, high, false);
        }

        public long length() {
            return high - low + 1;
        }
    }

    public ArrayType {
        bounds = List.copyOf(bounds);
    }

    /** It takes arrays of any length. */
    public boolean open() {
        return bounds.get(0).open();
    }

    /** All elements. */
    public long elements() {
        return bounds.stream().mapToLong(Bound::length).reduce(1, Math::multiplyExact);
    }

    /** Cells of a variable; of an open one its place and two bounds for each dimension. */
    @Override
    public int cells() {
        return open() ? 1 + 2 * bounds.size() : Math.toIntExact(elements() * element.cells());
    }

    /** Cells between neighbours of one dimension. */
    public int stride(int dimension) {
        long stride = element.cells();
        for (int i = dimension + 1; i < bounds.size(); i++) {
            stride *= bounds.get(i).length();
        }
        return Math.toIntExact(stride);
    }

    @Override
    public Type elementary() {
        return null;
    }

    @Override
    public String written() {
        return "ARRAY [" + String.join(", ", bounds.stream().map(b -> b.open() ? "*" : b.low() + ".." + b.high()).toList()) + "] OF " + element.written();
    }
}
