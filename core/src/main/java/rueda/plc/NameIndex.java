package rueda.plc;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import rueda.plc.StructuredTextCompiler.Text;
import rueda.plc.syntax.Place;

/**
 * What every name in the texts of a program means, where it is declared and where it is used. Made by {@link StructuredTextCompiler#index}, also
 * of texts with faults, as far as they can be read. Not thread-safe while it is made, immutable afterwards.
 */
public final class NameIndex {

    /** What happens to a name where it stands. */
    public enum How { DECLARED, READ, WRITTEN, CALLED, TYPE }

    /** What a name is. */
    public enum Kind { VARIABLE, GLOBAL, TAG, AXIS, CONSTANT, UNIT, TYPE, MEMBER, VALUE }

    /**
     * A place where a name stands.
     *
     * @param line   from 1
     * @param column from 1
     * @param unit   in which it stands, empty outside of units
     */
    public record Use(String file, int line, int column, int length, How how, String unit) {
    }

    /**
     * A name and what it means.
     *
     * @param name    as declared
     * @param owner   unit or type that it belongs to, empty for what all units know
     * @param type    as a declaration writes it, empty where it has none
     * @param comment that stands in the line of its declaration, or above it; empty for none
     * @param uses    in the order of the texts, its declaration among them where it has one
     */
    public record Named(String name, String owner, Kind kind, String type, String comment, List<Use> uses) {

        /** Where it is declared; nothing for what the machine or the standard gives. */
        public Optional<Use> declaration() {
            return uses.stream().filter(u -> u.how() == How.DECLARED).findFirst();
        }
    }

    /** A place, so that what is asked several times stands once. */
    private record Spot(String file, int line, int column) {
    }

    private record Meaning(String owner, String name) {
    }

    private record Known(String name, String owner, Kind kind, String type) {
    }

    /** Stands for the file of what is declared in none: names in it stand nowhere. */
    static final String NO_FILE = "$given";
    /** Of a name with dots in it. */
    private static final int LONGEST_NAME = 300;
    private static final Pattern COMMENT = Pattern.compile("\\(\\*(.*?)\\*\\)|//(.*)$");

    private final Map<Meaning, Known> known = new LinkedHashMap<>();
    private final Map<Spot, Use> uses = new LinkedHashMap<>();
    private final Map<Spot, Meaning> meanings = new HashMap<>();
    private final Map<Meaning, Named> named = new LinkedHashMap<>();
    private Map<String, String[]> lines = Map.of();
    private final boolean collects;

    /** @param collects false: nobody asks for it */
    NameIndex(boolean collects) {
        this.collects = collects;
    }

    // ---- while it is made

    private static Meaning meaning(String owner, String name) {
        return new Meaning(Scope.key(owner), Scope.key(name));
    }

    /** A name that the machine or the standard gives. */
    void given(String owner, String name, Kind kind, String type) {
        if (!collects) {
            return;
        }
        known.putIfAbsent(meaning(owner, name), new Known(name, owner, kind, type));
    }

    void declared(String file, Place place, String unit, String owner, String name, Kind kind, String type) {
        if (!collects) {
            return;
        }
        known.put(meaning(owner, name), new Known(name, owner, kind, type));
        put(file, place, unit, owner, name, How.DECLARED);
    }

    void used(String file, Place place, String unit, String owner, String name, How how) {
        if (collects) {
            put(file, place, unit, owner, name, how);
        }
    }

    private void put(String file, Place place, String unit, String owner, String name, How how) {
        if (file.equals(NO_FILE)) {
            return;
        }
        Spot spot = new Spot(file, place.line(), place.column());
        uses.put(spot, new Use(file, place.line(), place.column(), name.length(), how, unit));
        meanings.put(spot, meaning(owner, name));
    }

    /** What begins there, and every name of a path that does, has this done to it. */
    void done(String file, Place place, How how) {
        for (int column = place.column(); collects && column < place.column() + place.length(); column++) {
            Spot spot = new Spot(file, place.line(), column);
            uses.computeIfPresent(spot, (at, use) -> use.how() == How.READ ? new Use(file, use.line(), use.column(), use.length(), how, use.unit()) : use);
        }
    }

    void finish(List<Text> texts) {
        lines = new HashMap<>();
        texts.forEach(text -> lines.put(text.file(), text.source().split("\n", -1)));
        Map<Meaning, List<Use>> byMeaning = new HashMap<>();
        uses.forEach((spot, use) -> byMeaning.computeIfAbsent(meanings.get(spot), m -> new ArrayList<>()).add(use));
        byMeaning.keySet().forEach(m -> known.putIfAbsent(m, new Known(m.name(), m.owner(), Kind.MEMBER, "")));
        known.forEach((meaning, what) -> named.put(meaning, named(what, byMeaning.getOrDefault(meaning, List.of()))));
    }

    // ---- what can be asked

    /** What stands there. @param line from 1  @param column from 1, of any of its characters or right behind them */
    public Optional<Named> at(String file, int line, int column) {
        for (int from = column; from >= 1 && from > column - LONGEST_NAME; from--) {
            Use use = uses.get(new Spot(file, line, from));
            if (use != null) {
                return column <= use.column() + use.length() ? Optional.of(named.get(meanings.get(new Spot(file, line, from)))) : Optional.empty();
            }
        }
        return Optional.empty();
    }

    /** A name by what it belongs to, in any case. @param owner empty for what all units know */
    public Optional<Named> find(String owner, String name) {
        return Optional.ofNullable(named.get(meaning(owner, name)));
    }

    /** All names of a kind, also those that are used nowhere, in the order of their declarations. */
    public List<Named> all(Predicate<Kind> kinds) {
        return named.values().stream().filter(n -> kinds.test(n.kind())).toList();
    }

    private Named named(Known what, List<Use> found) {
        List<Use> sorted = found.stream().sorted(Comparator.comparing(Use::file).thenComparingInt(Use::line).thenComparingInt(Use::column)).toList();
        String comment = sorted.stream().filter(u -> u.how() == How.DECLARED).findFirst().map(this::comment).orElse("");
        return new Named(what.name(), what.owner(), what.kind(), what.type(), comment, sorted);
    }

    /** Behind the declaration in its line, or alone in the line above. */
    private String comment(Use declaration) {
        String[] text = lines.getOrDefault(declaration.file(), new String[0]);
        if (declaration.line() > text.length) {
            return "";
        }
        String here = text[declaration.line() - 1];
        Matcher behind = COMMENT.matcher(here.substring(Math.min(here.length(), declaration.column() - 1)));
        if (behind.find()) {
            return words(behind);
        }
        Matcher above = COMMENT.matcher(declaration.line() < 2 ? "" : text[declaration.line() - 2].strip());
        return above.matches() ? words(above) : "";
    }

    private static String words(Matcher comment) {
        return (comment.group(1) != null ? comment.group(1) : comment.group(2)).strip();
    }
}
