package rueda.bench;

/** Whoever asked for a calculation waits for it no longer; it has stopped at a whole bus cycle, and what it had found so far is given up. */
public final class CalculationCancelled extends RuntimeException {
    public CalculationCancelled() {
        super("The calculation was cancelled.", null, false, false);
    }
}
