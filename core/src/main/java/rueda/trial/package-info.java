/**
 * What a stage tries out on a bench of its own before anything is proven: homing, wiring, a movement, identification, a short move, a turn by hand. Each
 * takes one axis of the machine alone ({@link rueda.trial.AxisAlone}) and says what was seen; nothing is estimated that the bench can do.
 */
package rueda.trial;
