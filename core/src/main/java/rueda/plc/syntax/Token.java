package rueda.plc.syntax;

import java.util.Locale;

/**
 * The smallest piece of a text that means something.
 *
 * @param kind  what it is
 * @param text  as written
 * @param place where it stands
 * @param from  index of its first character in the text
 * @param to    index behind its last character
 */
record Token(Kind kind, String text, Place place, int from, int to) {

    enum Kind { WORD, LITERAL, SYMBOL, END }

    /** This symbol, or this word in any case. */
    boolean is(String wanted) {
        return (kind == Kind.SYMBOL || kind == Kind.WORD) && text.equalsIgnoreCase(wanted);
    }

    String upper() {
        return text.toUpperCase(Locale.ROOT);
    }

    /** A word that is none of the language's: it may name something. */
    boolean isName() {
        return kind == Kind.WORD && !Words.isKeyword(text);
    }

    boolean isKeyword() {
        return kind == Kind.WORD && Words.isKeyword(text);
    }
}
