package rueda.app.proof;

/**
 * One line of what is told while a proof is repeated.
 *
 * @param before   how many repeated proofs go first
 * @param done     runs that have ended
 * @param total    all of them
 * @param seconds  about how long it takes still, s; null while that is not known
 * @param ended    it has ended; in the last line
 */
record RepetitionProgress(int before, int done, int total, Double seconds, boolean ended) {
}
