package rueda.bus;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;
import java.util.List;
import rueda.machine.Station.Entry;

/**
 * Where each entry of one direction lies in the bytes of a cycle.
 *
 * <p>Entries follow each other without gaps; each message (PDO) begins on a byte. Bit 0 is the least significant bit of
 * the first byte; values of whole bytes on a byte boundary have the order of the bus, others least significant bit first.
 * Immutable and thread-safe; packing allocates nothing and takes a few nanoseconds an entry.
 */
public final class ProcessDataLayout {

    private static final VarHandle WORD = MethodHandles.byteArrayViewVarHandle(short[].class, ByteOrder.LITTLE_ENDIAN);
    private static final int WAY_BITS = 3;
    private static final int WAY = (1 << WAY_BITS) - 1;
    private static final int BIT_BY_BIT = 0;
    private static final int ONE_BYTE = 1;
    private static final int TWO_BYTES = 2;
    private static final int FOUR_BYTES = 3;
    private static final int TWO_BYTES_SWAPPED = 4;
    private static final int FOUR_BYTES_SWAPPED = 5;
    private static final VarHandle DOUBLE_WORD = MethodHandles.byteArrayViewVarHandle(int[].class, ByteOrder.LITTLE_ENDIAN);

    private final List<Entry> entries;
    private final WireOrder order;
    private final int[] bitOffset;
    private final int[] bits;
    /** how a value moves, the lowest three bits, in one step for those of 8, 16 and 32 bits on a byte; above them its first byte */
    private final int[] step;
    /** the bytes are not least significant first; only of values that do not move in one step */
    private final boolean[] swapped;
    private final int bytes;

    /** Least significant byte first. */
    public ProcessDataLayout(List<Entry> entries) {
        this(entries, WireOrder.LITTLE_ENDIAN);
    }

    public ProcessDataLayout(List<Entry> entries, WireOrder order) {
        this.entries = List.copyOf(entries);
        this.order = order;
        int count = entries.size();
        bitOffset = new int[count];
        bits = new int[count];
        step = new int[count];
        swapped = new boolean[count];
        int next = 0;
        for (int i = 0; i < count; i++) {
            if (i > 0 && entries.get(i).pdo() != entries.get(i - 1).pdo()) {
                next = (next + 7) / 8 * 8;
            }
            bitOffset[i] = next;
            bits[i] = entries.get(i).bits();
            boolean onByte = (next & 7) == 0;
            boolean foreign = order != WireOrder.LITTLE_ENDIAN;
            step[i] = next >> 3 << WAY_BITS | (!onByte ? BIT_BY_BIT : switch (bits[i]) {
                case 8 -> ONE_BYTE;
                case 16 -> foreign ? TWO_BYTES_SWAPPED : TWO_BYTES;
                case 32 -> foreign ? FOUR_BYTES_SWAPPED : FOUR_BYTES;
                default -> BIT_BY_BIT;
            });
            swapped[i] = foreign && onByte && bits[i] > 8 && bits[i] % 8 == 0;
            next += bits[i];
        }
        bytes = (next + 7) / 8;
    }

    public List<Entry> entries() {
        return entries;
    }

    public WireOrder order() {
        return order;
    }

    /** Bytes of the whole image. */
    public int bytes() {
        return bytes;
    }

    /** Offset of an entry, in bits from the start of the image. */
    public int bitOffset(int entry) {
        return bitOffset[entry];
    }

    /** Position of an object in the layout, or −1. */
    public int indexOf(int object, int subIndex) {
        for (int i = 0; i < entries.size(); i++) {
            if (entries.get(i).object() == object && entries.get(i).subIndex() == subIndex) {
                return i;
            }
        }
        return -1;
    }

    /**
     * Puts one value into the image.
     *
     * @param value the low bits are taken; higher bits are cut off, as on a wire
     */
    public void write(byte[] image, int entry, long value) {
        int move = step[entry];
        int at = move >> WAY_BITS;
        switch (move & WAY) {
            case ONE_BYTE -> image[at] = (byte) value;
            case TWO_BYTES -> WORD.set(image, at, (short) value);
            case FOUR_BYTES -> DOUBLE_WORD.set(image, at, (int) value);
            case TWO_BYTES_SWAPPED -> WORD.set(image, at, (short) order.swapped(value, 16));
            case FOUR_BYTES_SWAPPED -> DOUBLE_WORD.set(image, at, (int) order.swapped(value, 32));
            default -> writeBits(image, bitOffset[entry], bits[entry], swapped[entry] ? order.swapped(value, bits[entry]) : value);
        }
    }

    private static void writeBits(byte[] image, int offset, int left, long value) {
        while (left > 0) {
            int shift = offset & 7;
            int take = Math.min(left, 8 - shift);
            int mask = ((1 << take) - 1) << shift;
            int at = offset >> 3;
            image[at] = (byte) (image[at] & ~mask | ((int) value << shift) & mask);
            value >>>= take;
            offset += take;
            left -= take;
        }
    }

    /** Reads one value, not sign-extended. */
    public long read(byte[] image, int entry) {
        int move = step[entry];
        int at = move >> WAY_BITS;
        return switch (move & WAY) {
            case ONE_BYTE -> image[at] & 0xFFL;
            case TWO_BYTES -> (short) WORD.get(image, at) & 0xFFFFL;
            case FOUR_BYTES -> (int) DOUBLE_WORD.get(image, at) & 0xFFFF_FFFFL;
            case TWO_BYTES_SWAPPED -> order.swapped((short) WORD.get(image, at) & 0xFFFFL, 16);
            case FOUR_BYTES_SWAPPED -> order.swapped((int) DOUBLE_WORD.get(image, at) & 0xFFFF_FFFFL, 32);
            default -> {
                long value = readBits(image, bitOffset[entry], bits[entry]);
                yield swapped[entry] ? order.swapped(value, bits[entry]) : value;
            }
        };
    }

    private static long readBits(byte[] image, int offset, int width) {
        long value = 0;
        int done = 0;
        while (done < width) {
            int shift = offset & 7;
            int take = Math.min(width - done, 8 - shift);
            long part = (image[offset >> 3] & 0xFF) >>> shift & ((1L << take) - 1);
            value |= part << done;
            done += take;
            offset += take;
        }
        return value;
    }

    /** Reads one value as a signed number of the entry's width. */
    public long readSigned(byte[] image, int entry) {
        int unused = 64 - bits[entry];
        return read(image, entry) << unused >> unused;
    }
}
