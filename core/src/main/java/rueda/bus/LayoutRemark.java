package rueda.bus;

/**
 * A rule of the bus that a layout breaks.
 *
 * @param entry       number of the entry it is about, −1 for the whole direction
 * @param title       what is wrong
 * @param consequence what comes of it, with the rule
 * @param fault       false when it would run all the same
 * @param mend        what would put it right
 */
public record LayoutRemark(int entry, String title, String consequence, boolean fault, Mend mend) {

    /** What puts a layout right. */
    public sealed interface Mend {
        /** A filler of so many bits before the entry. */
        record Filler(int bits) implements Mend {
        }

        /** A filler of so many bits at the end. */
        record FillerAtEnd(int bits) implements Mend {
        }

        /** The entry, and what follows it in its message, moves to the next message. */
        record NextMessage() implements Mend {
        }

        record None() implements Mend {
        }
    }
}
