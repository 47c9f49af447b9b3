package rueda.plc.syntax;

import java.util.Collection;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/** The words of the language, and guesses at what a misspelt one was meant to be. */
public final class Words {

    private static final Set<String> KEYWORDS = Set.of("PROGRAM", "END_PROGRAM", "FUNCTION", "END_FUNCTION", "FUNCTION_BLOCK", "END_FUNCTION_BLOCK", "VAR", "VAR_INPUT", "VAR_OUTPUT",
            "VAR_IN_OUT", "VAR_TEMP", "VAR_GLOBAL", "VAR_EXTERNAL", "END_VAR", "CONSTANT", "RETAIN", "NON_RETAIN", "AT", "R_EDGE", "F_EDGE", "TYPE", "END_TYPE", "STRUCT", "END_STRUCT",
            "ARRAY", "REF_TO", "NULL", "IF", "THEN", "ELSIF", "ELSE", "END_IF", "CASE", "OF", "END_CASE", "FOR", "TO", "BY", "DO", "END_FOR", "WHILE", "END_WHILE", "REPEAT", "UNTIL",
            "END_REPEAT", "EXIT", "CONTINUE", "RETURN", "NOT", "AND", "XOR", "OR", "MOD", "TRUE", "FALSE");

    /** Keywords that a body is made of: guesses at a misspelt statement. */
    private static final Set<String> IN_BODIES = Set.of("IF", "THEN", "ELSIF", "ELSE", "END_IF", "CASE", "OF", "END_CASE", "FOR", "TO", "BY", "DO", "END_FOR", "WHILE", "END_WHILE", "REPEAT",
            "UNTIL", "END_REPEAT", "EXIT", "CONTINUE", "RETURN", "END_PROGRAM", "END_FUNCTION", "END_FUNCTION_BLOCK", "NOT", "AND", "XOR", "OR", "MOD", "TRUE", "FALSE");

    /**
     * Words of the standard that this language has and Rueda has not yet. Words of sequential function charts and of configurations (STEP,
     * ACTION, TASK …) and modifiers of classes are left free: they mean nothing inside Structured Text, and programs use them as names.
     */
    private static final Set<String> LATER = Set.of("VAR_ACCESS", "VAR_CONFIG", "METHOD", "END_METHOD", "PROPERTY", "END_PROPERTY", "INTERFACE", "END_INTERFACE", "CLASS", "END_CLASS",
            "EXTENDS", "IMPLEMENTS", "NAMESPACE", "END_NAMESPACE", "USING", "CONFIGURATION", "END_CONFIGURATION", "RESOURCE", "END_RESOURCE", "THIS", "SUPER");

    private Words() {
    }

    /** Words of the language, in capitals. */
    public static Set<String> keywords() {
        return KEYWORDS;
    }

    /** A word of the language: it names nothing. */
    public static boolean isKeyword(String word) {
        String upper = word.toUpperCase(Locale.ROOT);
        return KEYWORDS.contains(upper) || LATER.contains(upper);
    }

    /** A word that the standard has and Rueda has not. */
    static boolean isForLater(String word) {
        return LATER.contains(word.toUpperCase(Locale.ROOT));
    }

    /** The word of the language that this one is nearly. */
    static Optional<String> nearestKeyword(String word) {
        return nearest(word, IN_BODIES);
    }

    /** Why a name cannot be used (IEC 61131-3, 6.1.2 identifiers; from memory), or null when it can. */
    public static String faultOfName(String name) {
        if (isKeyword(name)) {
            return name + " is a word of the language and cannot be a name. Choose another one, such as " + name + "_1.";
        }
        for (int i = 0; i < name.length(); i++) {
            char c = name.charAt(i);
            boolean allowed = c == '_' || c >= 'A' && c <= 'Z' || c >= 'a' && c <= 'z' || c >= '0' && c <= '9';
            if (!allowed) {
                return "A name has letters A to Z, digits and _, not " + c + ".";
            }
        }
        if (name.contains("__") || name.endsWith("_")) {
            return name + " is no name: _ stands single and not at the end.";
        }
        return null;
    }

    /**
     * The candidate that a misspelt word is nearest to: at most a third of its letters wrong, left out, added or swapped
     * (distance of Damerau and Levenshtein, restricted to neighbours).
     */
    public static Optional<String> nearest(String word, Collection<String> candidates) {
        String upper = word.toUpperCase(Locale.ROOT);
        if (upper.length() > 60) {
            return Optional.empty();
        }
        int allowed = Math.max(1, upper.length() / 3);
        String best = null;
        int distance = allowed + 1;
        for (String candidate : candidates) {
            if (Math.abs(candidate.length() - upper.length()) < distance) {
                int d = distance(upper, candidate.toUpperCase(Locale.ROOT));
                if (d < distance || d == distance && best != null && candidate.compareTo(best) < 0) {
                    distance = d;
                    best = candidate;
                }
            }
        }
        return upper.length() < 2 ? Optional.empty() : Optional.ofNullable(best);
    }

    private static int distance(String a, String b) {
        int[] beforeLast = new int[b.length() + 1];
        int[] last = new int[b.length() + 1];
        int[] row = new int[b.length() + 1];
        for (int j = 0; j <= b.length(); j++) {
            last[j] = j;
        }
        for (int i = 1; i <= a.length(); i++) {
            row[0] = i;
            for (int j = 1; j <= b.length(); j++) {
                int swap = a.charAt(i - 1) == b.charAt(j - 1) ? 0 : 1;
                row[j] = Math.min(Math.min(row[j - 1], last[j]) + 1, last[j - 1] + swap);
                if (i > 1 && j > 1 && a.charAt(i - 1) == b.charAt(j - 2) && a.charAt(i - 2) == b.charAt(j - 1)) {
                    row[j] = Math.min(row[j], beforeLast[j - 2] + 1);
                }
            }
            int[] free = beforeLast;
            beforeLast = last;
            last = row;
            row = free;
        }
        return last[b.length()];
    }
}
