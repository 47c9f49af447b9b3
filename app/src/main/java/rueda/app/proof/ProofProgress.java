package rueda.app.proof;

/**
 * One line of what is told while a proof is asked for.
 *
 * @param before  how many proofs run before this one, 0 when it runs
 * @param time    machine time that has passed, s
 * @param of      duration of the run, s; 0 while it waits
 * @param run     the stored run, in the last line
 * @param refused why there is none, in the last line
 */
record ProofProgress(int before, double time, double of, RunView run, String refused) {
}
