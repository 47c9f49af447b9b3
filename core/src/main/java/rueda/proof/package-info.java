/**
 * Runs a program on a bench and holds what moved against what was expected: verdict, measured value, room left,
 * the worst place in the recording, the order that caused it and, where one can be computed, a mend.
 */
package rueda.proof;
