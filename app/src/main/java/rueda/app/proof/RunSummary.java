package rueda.app.proof;

import java.time.Instant;

/** A run in a list. @param circumstances what was other than the document says; empty for nothing */
record RunSummary(long id, long revision, Instant ranAt, String circumstances, boolean holds) {
}
