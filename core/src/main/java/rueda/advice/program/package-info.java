/**
 * Findings about a program, by looking at its text without running it. {@link rueda.advice.program.ProgramAdvice} asks one class after the
 * other; each looks for mistakes of one kind on the {@link rueda.advice.program.ProgramModel}: what the text calls on which axis, and under
 * which conditions. What cannot be decided is not said: a name that may guard something counts as one that does.
 */
package rueda.advice.program;
