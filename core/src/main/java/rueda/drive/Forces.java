package rueda.drive;

/** Levels that a person has put on terminals instead of what they would show, bit 0 the first. Not thread-safe. */
final class Forces {

    private int forced;
    private int levels;

    /** @param bit the terminal's bit  @param level null gives the terminal back */
    void force(int bit, Boolean level) {
        forced = level == null ? forced & ~bit : forced | bit;
        levels = level != null && level ? levels | bit : levels & ~bit;
    }

    void release() {
        forced = 0;
        levels = 0;
    }

    /** What the terminals show, forced where they are. @param own levels that they would show */
    int over(int own) {
        return own & ~forced | levels;
    }

    /** Which terminals are forced. */
    int mask() {
        return forced;
    }
}
