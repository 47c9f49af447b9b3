package rueda.plc.run;

/**
 * Where in the texts of a program a function block is called.
 *
 * @param file name of the text, empty where it has none
 * @param line from 1; 0 outside of a program
 */
public record CallPlace(String file, int line) {

    /** What a person does, or the bench by itself. */
    public static final CallPlace NONE = new CallPlace("", 0);
}
