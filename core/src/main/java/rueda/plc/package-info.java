/**
 * Structured Text of IEC 61131-3: parsed by {@link rueda.plc.syntax}, checked, and executed by a tree of small typed closures.
 *
 * <p>All values of a task live in one {@code long[]}: integers, bit strings, TIME (nanoseconds) and BOOL (0 or 1)
 * as they are, REAL and LREAL as the bits of a {@code double}. A variable, a pin of a function block and a tag is a
 * slot in it, so the recording and the page read every value the same way.
 */
package rueda.plc;
