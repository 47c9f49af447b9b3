package rueda.plc.syntax;

/** Takes what is wrong with a text. */
public interface Complaints {

    /** Nobody wants to know: a text in the making is looked at all the same. */
    Complaints NONE = new Complaints() {
        @Override
        public void at(Place place, String message) {
            // Nobody wants to know.
        }

        @Override
        public boolean full() {
            return false;
        }
    };

    /** @param message what is wrong and what would be right, one or two sentences */
    void at(Place place, String message);

    /** @param mend a change that would mend it, or null */
    default void at(Place place, String message, TextMend mend) {
        at(place, message);
    }

    /** No more is taken: going on reading is useless. */
    boolean full();
}
