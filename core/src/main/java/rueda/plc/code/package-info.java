/**
 * Checked programs on their way to the machine: values ({@link rueda.plc.code.Node}) and statements ({@link rueda.plc.code.Action}) with their
 * types settled, and the generator that turns them into classes of the Java virtual machine, one for each program organisation unit.
 *
 * <p>A unit's code is a static method {@code int body(int b)}: variables are cells of the frame's memory, those of a function block lie
 * {@code b} cells further. Whole numbers, bit strings and times are {@code long}, BOOL is {@code int} 0 or 1, REAL and LREAL are
 * {@code double}, which lie in memory as their bits; texts lie in the frame's texts under the same number. Each task has classes of its own, so
 * that the frame is a constant for the just-in-time compiler and reaching a variable costs no more than reaching a field.
 */
package rueda.plc.code;
