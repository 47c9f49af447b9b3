/**
 * The same proof under other conditions: which runs a plan has ({@link rueda.proof.repeat.Cases}), what each of them changes on the stand, in the drives or in the
 * script ({@link rueda.proof.repeat.Prepared}), all of them on all processors ({@link rueda.proof.repeat.Repetition}), and what that says
 * ({@link rueda.proof.repeat.ConditionMap}).
 *
 * <p>A run depends on its case alone: values of random draws follow from the plan's seed and the number of the run, those of a search from the
 * runs that it looks at, in their order. So the same plan gives the same verdicts on any machine, with any number of threads, and each run can be
 * made again.
 */
package rueda.proof.repeat;
