/**
 * The watch over stops and standstill, as a device of its own: it has its own clock, its own encoder channel and its own inputs, and knows nothing of
 * what drive and program intend. It asks the control to slow down and only watches that it does; where a watch is broken it takes the torque away.
 *
 * <p>The functions are those of IEC 61800-5-2: safe torque off, safe stop 1 and 2, safe operating stop, safely limited speed, safe direction, safe
 * brake control. Stops have a category by IEC 60204-1, 9.2.2 (numbers of clauses here and below from memory): 0 takes the power away at once, 1 when
 * the axis stands, 2 leaves it on.
 *
 * <p>Time passes in cycles of the guard. What it knows of speed is the number of counts from one cycle to the next, so a speed is known to one count
 * a cycle, and a limit is broken one cycle later at the latest; {@link rueda.guard.AxisWatch} says what follows from that.
 *
 * <p>A simulated guard is for planning and for finding mistakes. It replaces no validation on the machine.
 */
package rueda.guard;
