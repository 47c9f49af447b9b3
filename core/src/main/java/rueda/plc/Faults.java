package rueda.plc;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import rueda.plc.syntax.Complaints;
import rueda.plc.syntax.ExpressionSyntax;
import rueda.plc.syntax.Place;

/** Collects the faults of one text, from the parser and from the type checker. */
final class Faults implements Complaints {

    private static final int MOST = 50;
    private final List<Diagnostic> found = new ArrayList<>();
    private final String file;

    /** @param file name of the text */
    Faults(String file) {
        this.file = file;
    }

    @Override
    public void at(Place place, String message) {
        if (!full()) {
            found.add(new Diagnostic(file, place.line(), place.column(), place.length(), message));
        }
    }

    void at(ExpressionSyntax place, String message) {
        at(place.place(), message);
    }

    @Override
    public boolean full() {
        return found.size() >= MOST;
    }

    boolean none() {
        return found.isEmpty();
    }

    List<Diagnostic> sorted() {
        return found.stream().sorted(Comparator.comparingInt(Diagnostic::line).thenComparingInt(Diagnostic::column)).toList();
    }
}
