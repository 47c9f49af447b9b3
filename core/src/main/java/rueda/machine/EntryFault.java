package rueda.machine;

/**
 * A refused entry of the document.
 *
 * @param field   JSON pointer into the document, such as {@code /axes/0/reducer/motorTurns}
 * @param label   the field as the page calls it
 * @param value   what was entered
 * @param allowed what is allowed
 * @param mend    what to do
 */
public record EntryFault(String field, String label, String value, String allowed, String mend) {
}
