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
    private static final VarHandle DOUBLE_WORD = MethodHandles.byteArrayViewVarHandle(int[].class, ByteOrder.LITTLE_ENDIAN);

    private final List<Entry> entries;
    private final WireOrder order;
    private final int[] bitOffset;
    private final int[] bits;
    /** 8, 16 or 32 for a value of that width on a byte boundary, which moves in one step; else 0. */
    private final int[] whole;
    /** the bytes are not least significant first */
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
        whole = new int[count];
        swapped = new boolean[count];
        int next = 0;
        for (int i = 0; i < count; i++) {
            if (i > 0 && entries.get(i).pdo() != entries.get(i - 1).pdo()) {
                next = (next + 7) / 8 * 8;
            }
            bitOffset[i] = next;
            bits[i] = entries.get(i).bits();
            boolean onByte = (next & 7) == 0;
            whole[i] = onByte && (bits[i] == 8 || bits[i] == 16 || bits[i] == 32) ? bits[i] : 0;
            swapped[i] = order != WireOrder.LITTLE_ENDIAN && onByte && bits[i] > 8 && bits[i] % 8 == 0;
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
        int offset = bitOffset[entry];
        int left = bits[entry];
        if (swapped[entry]) {
            value = order.swapped(value, left);
        }
        if (whole[entry] == 32) {
            DOUBLE_WORD.set(image, offset >> 3, (int) value);
            return;
        }
        if (whole[entry] == 16) {
            WORD.set(image, offset >> 3, (short) value);
            return;
        }
        if (whole[entry] == 8) {
            image[offset >> 3] = (byte) value;
            return;
        }
        if ((offset & 7) == 0 && (left & 7) == 0) {
            for (int at = offset >> 3; left > 0; left -= 8) {
                image[at++] = (byte) value;
                value >>>= 8;
            }
            return;
        }
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
        long value = inByteOrder(image, entry);
        return swapped[entry] ? order.swapped(value, bits[entry]) : value;
    }

    /** The value as its bytes stand, least significant first. */
    private long inByteOrder(byte[] image, int entry) {
        int offset = bitOffset[entry];
        int width = bits[entry];
        if (whole[entry] == 32) {
            return (int) DOUBLE_WORD.get(image, offset >> 3) & 0xFFFF_FFFFL;
        }
        if (whole[entry] == 16) {
            return (short) WORD.get(image, offset >> 3) & 0xFFFFL;
        }
        if (whole[entry] == 8) {
            return image[offset >> 3] & 0xFFL;
        }
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
