package rueda.advice;

/**
 * A computed consequence.
 *
 * @param label   what it is
 * @param value   formatted value
 * @param unit    its unit, empty for none
 * @param formula where it comes from, with the numbers
 */
public record Figure(String label, String value, String unit, String formula) {
}
