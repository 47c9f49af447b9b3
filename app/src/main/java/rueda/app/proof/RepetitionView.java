package rueda.app.proof;

import java.time.Instant;
import rueda.proof.repeat.ConditionMap;

/**
 * A proof that is, or was, repeated by its plan.
 *
 * @param revision of the machine that it is about
 * @param proof    its name
 * @param done     runs that have ended
 * @param total    all of them
 * @param message  why it ended before its end; null when it did not
 * @param plan     what it does, in words
 * @param map      what it says; null until it has ended
 */
public record RepetitionView(long id, long revision, String proof, Instant startedAt, Instant endedAt, RepetitionEntity.State state, int done, int total, String message, String plan, ConditionMap map) {
}
