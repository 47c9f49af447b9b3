/**
 * The machine document: immutable records that say everything the bench, the checks and the proofs need.
 *
 * <p>Values of an axis stand in its user unit (mm, mm/s, mm/s²), as they were entered; physical constants
 * stand in SI. The document is plain data and may hold nonsense: {@link rueda.machine.MachineRules} says
 * which entry is wrong and what is allowed, so that every fault can be reported at once.
 */
package rueda.machine;
