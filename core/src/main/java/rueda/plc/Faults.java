package rueda.plc;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import rueda.plc.syntax.Complaints;
import rueda.plc.syntax.ExpressionSyntax;
import rueda.plc.syntax.TextMend;
import rueda.plc.syntax.Place;

/** Collects the faults of one text, from the parser and from the type checker. */
final class Faults implements Complaints {

    private static final int MOST = 50;
    private static final Pattern GUESS = Pattern.compile("Did you mean ([\\w.]+)\\?$");
    private static final Pattern CONVERSION = Pattern.compile("^This is .*convert it with (\\w+_TO_\\w+)\\.$");
    private static final Pattern NAME = Pattern.compile("^[A-Za-z_]\\w*(\\.[A-Za-z_]\\w*)*");

    private final List<Diagnostic> found = new ArrayList<>();
    private final String file;
    private final String source;
    private String[] lines;

    /** @param file name of the text  @param source the text, of which mends are made */
    Faults(String file, String source) {
        this.file = file;
        this.source = source;
    }

    /** Name of the text. */
    String file() {
        return file;
    }

    @Override
    public void at(Place place, String message) {
        at(place, message, null);
    }

    @Override
    public void at(Place place, String message, TextMend mend) {
        if (!full()) {
            found.add(new Diagnostic(file, place.line(), place.column(), place.length(), message, mend != null ? mend : mend(place, message)));
        }
    }

    /** What a message proposes, as a change: the name that was meant, or the conversion around the expression. */
    private TextMend mend(Place place, String message) {
        Matcher guess = GUESS.matcher(message);
        Matcher conversion = CONVERSION.matcher(message);
        boolean guessed = guess.find();
        if (!guessed && !conversion.find()) {
            return null;
        }
        if (lines == null) {
            lines = source.split("\n", -1);
        }
        String line = place.line() <= lines.length ? lines[place.line() - 1] : "";
        int from = Math.min(line.length(), place.column() - 1);
        String there = line.substring(from, Math.min(line.length(), from + place.length()));
        return guessed ? named(place, there, guess.group(1)) : converted(place, there, line.substring(from + there.length()).stripLeading(), conversion.group(1));
    }

    /** A member is replaced by a member, a whole name by a whole name. */
    private static TextMend named(Place place, String there, String meant) {
        Matcher name = NAME.matcher(there);
        if (!name.find()) {
            return null;
        }
        int dot = meant.indexOf('.') >= 0 ? -1 : name.group().lastIndexOf('.');
        return TextMend.replace(new Place(place.line(), place.column() + dot + 1, name.end() - dot - 1), meant);
    }

    /** Only where the place is the whole expression: what stands behind it ends one. */
    private static TextMend converted(Place place, String there, String behind, String function) {
        boolean ends = behind.isEmpty() || ";,)]".indexOf(behind.charAt(0)) >= 0;
        return ends && !there.isBlank() ? new TextMend("Write " + function + "(" + (there.length() > 20 ? "…" : there) + ")", place.line(), place.column(), there.length(), function + "(" + there + ")") : null;
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
