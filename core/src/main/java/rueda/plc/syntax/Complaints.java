package rueda.plc.syntax;

/** Takes what is wrong with a text. */
public interface Complaints {

    /** @param message what is wrong and what would be right, one or two sentences */
    void at(Place place, String message);

    /** No more is taken: going on reading is useless. */
    boolean full();
}
