package rueda.plc;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import rueda.plc.syntax.Words;

/** Names that are known in a unit, and those around it. Names are the same in any case (IEC 61131-3, 6.1.2). */
final class Scope {

    private final Scope around;
    private final Map<String, Symbol> symbols = new HashMap<>();
    private final Set<String> faulty = new HashSet<>();

    /** @param around the names that are known in all units, or null */
    Scope(Scope around) {
        this.around = around;
    }

    /** The same names, without what has been told of them: for expressions that are compiled later. */
    Scope fresh() {
        Scope fresh = new Scope(around == null ? null : around.fresh());
        fresh.symbols.putAll(symbols);
        return fresh;
    }

    void declare(Symbol symbol) {
        symbols.put(key(symbol.name()), symbol);
    }

    /** A name whose declaration is wrong: told already, and known from here on. */
    void declareFaulty(String name) {
        faulty.add(key(name));
    }

    /** The declaration of this name, or an earlier use of it, has been told as wrong. */
    boolean isFaulty(String name) {
        String key = key(name);
        int dot = key.indexOf('.');
        return faulty.contains(key) || dot > 0 && faulty.contains(key.substring(0, dot)) || around != null && around.isFaulty(name);
    }

    /** What a name stands for here or around, or null. */
    Symbol find(String name) {
        Symbol symbol = symbols.get(key(name));
        return symbol != null || around == null ? symbol : around.find(name);
    }

    /** The name is declared here. */
    Symbol own(String name) {
        return symbols.get(key(name));
    }

    boolean knows(String name) {
        return symbols.containsKey(key(name)) || faulty.contains(key(name));
    }

    /** All names, for guesses at a misspelt one. */
    List<String> names() {
        List<String> names = around == null ? new ArrayList<>() : around.names();
        symbols.values().forEach(symbol -> names.add(symbol.name()));
        return names;
    }

    /** " Did you mean …?", or nothing. */
    static String guess(String name, Collection<String> known) {
        return Words.nearest(name, known).map(nearest -> " Did you mean " + nearest + "?").orElse("");
    }

    static String key(String name) {
        return name.toUpperCase(Locale.ROOT);
    }
}
