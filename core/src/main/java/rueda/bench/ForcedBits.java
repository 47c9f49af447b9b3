package rueda.bench;

import rueda.bus.ProcessDataLayout;

/** Bits of one word that stand as a hand has put them, whatever PLC or drive say. Not thread-safe. */
final class ForcedBits {

    private int mask;
    private int levels;

    /** @param bit 0 to 15  @param level null to let it go */
    void force(int bit, Boolean level) {
        mask = level == null ? mask & ~(1 << bit) : mask | 1 << bit;
        levels = Boolean.TRUE.equals(level) ? levels | 1 << bit : levels & ~(1 << bit);
    }

    void release() {
        mask = 0;
        levels = 0;
    }

    /** Which bits are forced. */
    int mask() {
        return mask;
    }

    /** Puts the forced bits into a word that stands in an image. @param entry −1 for none */
    void apply(ProcessDataLayout layout, byte[] image, int entry) {
        if (mask != 0 && entry >= 0) {
            layout.write(image, entry, layout.read(image, entry) & ~mask | levels);
        }
    }
}
