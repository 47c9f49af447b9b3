package rueda.plc.syntax;

/**
 * A change of a text that mends a mistake: characters of one line are replaced.
 *
 * @param label  what is done, such as "Insert ;"
 * @param line   from 1
 * @param column from 1
 * @param length characters that are replaced, 0 where something is put in
 * @param text   what is put there; may hold line breaks
 */
public record TextMend(String label, int line, int column, int length, String text) {

    /** Puts something in at a place. */
    static TextMend insert(Place at, String text) {
        return new TextMend("Insert " + text.strip(), at.line(), at.column(), 0, text);
    }

    /** Puts something in the place of what stands there. */
    public static TextMend replace(Place place, String text) {
        return new TextMend("Write " + text, place.line(), place.column(), place.length(), text);
    }
}
