package rueda.plc.syntax;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import rueda.plc.syntax.Token.Kind;

/** Cuts a text into tokens. What cannot stand in a program is told once and left out or read as what was meant. */
final class Lexer {

    private static final Set<String> DATES = Set.of("D", "DATE", "LD", "LDATE", "DT", "DATE_AND_TIME", "LDT", "LDATE_AND_TIME");
    private static final Set<String> SYMBOLS = Set.of(":=", "=>", "..", "**", "<=", ">=", "<>");

    private final String text;
    private final Complaints complaints;
    private final List<Token> tokens = new ArrayList<>();
    private int at;
    private int line = 1;
    private int lineStart;
    private boolean openComment;

    private Lexer(String text, Complaints complaints) {
        this.text = text;
        this.complaints = complaints;
    }

    /**
     * @param tokens the last one is the end
     * @param cut    an open comment has taken the rest of the text: what is missing then is no second mistake
     */
    record Cut(List<Token> tokens, boolean cut) {
    }

    static Cut cut(String text, Complaints complaints) {
        Lexer lexer = new Lexer(text, complaints);
        while (lexer.at < text.length() && !complaints.full()) {
            lexer.next();
        }
        lexer.at = text.length();
        lexer.tokens.add(new Token(Kind.END, "", lexer.place(lexer.at, lexer.at), lexer.at, lexer.at));
        return new Cut(lexer.tokens, lexer.openComment);
    }

    private Place place(int from, int to) {
        return new Place(line, from - lineStart + 1, Math.max(1, to - from));
    }

    private char peek(int ahead) {
        return at + ahead < text.length() ? text.charAt(at + ahead) : '\0';
    }

    private void add(Kind kind, int from) {
        tokens.add(new Token(kind, text.substring(from, at), place(from, at), from, at));
    }

    private void next() {
        char c = text.charAt(at);
        if (c == '\n') {
            at++;
            line++;
            lineStart = at;
        } else if (Character.isWhitespace(c) || Character.isSpaceChar(c) || c == '\uFEFF') {
            at++;
        } else if (c == '(' && peek(1) == '*') {
            comment("(*", "*)");
        } else if (c == '/' && peek(1) == '*') {
            comment("/*", "*/");
        } else if (c == '/' && peek(1) == '/') {
            while (at < text.length() && text.charAt(at) != '\n') {
                at++;
            }
        } else if (c == '{') {
            comment("{", "}");
        } else if (c >= '0' && c <= '9') {
            number();
        } else if (c == '_' || Character.isLetter(c)) {
            word();
        } else if (c == '\'' || c == '"') {
            int from = at;
            characters(c);
            add(Kind.LITERAL, from);
        } else if ("\u2018\u2019\u201A\u201C\u201D\u201E\u00B4`".indexOf(c) >= 0) {
            curly();
        } else {
            symbol(c);
        }
    }

    /** Comments may nest (IEC 61131-3 edition 3, 6.1.5; from memory). */
    private void comment(String open, String close) {
        Place begin = place(at, at + open.length());
        int depth = 0;
        do {
            if (at >= text.length()) {
                complaints.at(begin, "The comment that begins here is not closed: " + close + " is missing.");
                openComment = true;
                return;
            }
            if (text.startsWith(close, at)) {
                depth--;
                at += close.length();
            } else if (text.startsWith(open, at)) {
                depth++;
                at += open.length();
            } else if (text.charAt(at++) == '\n') {
                line++;
                lineStart = at;
            }
        } while (depth > 0);
    }

    private static boolean inWord(char c) {
        return c == '_' || Character.isLetterOrDigit(c);
    }

    private void skipWord() {
        while (inWord(peek(0))) {
            at++;
        }
    }

    /** Digits, a base, a fraction, an exponent; letters that follow directly belong to it and are refused as a whole. */
    private void number() {
        int from = at;
        skipWord();
        if (peek(0) == '#') {
            at++;
            skipWord();
        } else {
            if (peek(0) == '.' && peek(1) != '.') {
                at++;
                skipWord();
            }
            exponent();
        }
        add(Kind.LITERAL, from);
    }

    private void exponent() {
        if ((peek(-1) == 'e' || peek(-1) == 'E') && (peek(0) == '+' || peek(0) == '-') && Character.isDigit(peek(1))) {
            at++;
            skipWord();
        }
    }

    private void word() {
        int from = at;
        skipWord();
        if (peek(0) != '#') {
            add(Kind.WORD, from);
            return;
        }
        String prefix = text.substring(from, at).toUpperCase(Locale.ROOT);
        at++;
        if (peek(0) == '\'' || peek(0) == '"') {
            characters(peek(0));
        } else {
            if (peek(0) == '-' || peek(0) == '+') {
                at++;
            }
            while (inWord(peek(0)) || peek(0) == '#' || peek(0) == ':' && Character.isDigit(peek(1)) || peek(0) == '.' && peek(1) != '.'
                    || peek(0) == '-' && DATES.contains(prefix)) {
                at++;
            }
            exponent();
        }
        add(Kind.LITERAL, from);
    }

    /** Up to the closing quote; $ takes the character behind it along. */
    private void characters(char quote) {
        int from = at++;
        while (at < text.length() && text.charAt(at) != quote && text.charAt(at) != '\n' && text.charAt(at) != '\r') {
            at += text.charAt(at) == '$' && peek(1) != '\n' && peek(1) != '\r' && peek(1) != '\0' ? 2 : 1;
        }
        if (peek(0) == quote) {
            at++;
            return;
        }
        complaints.at(place(from, at), "The text that begins here is not closed: " + quote + " is missing.");
    }

    /** Quotes of a word processor: told once, and read as the text that was meant. */
    private void curly() {
        int from = at++;
        while (at < text.length() && "\u2018\u2019\u201C\u201D\u00B4`'\"\n\r".indexOf(text.charAt(at)) < 0) {
            at++;
        }
        char wrong = text.charAt(from);
        if (at < text.length() && text.charAt(at) != '\n' && text.charAt(at) != '\r') {
            at++;
        }
        boolean wide = "\u201C\u201D\u201E".indexOf(wrong) >= 0;
        complaints.at(place(from, from + 1), "Write a straight " + (wide ? "\"" : "'") + " instead of " + wrong + ".");
        tokens.add(new Token(Kind.LITERAL, wide ? "\"\"" : "''", place(from, at), from, at));
    }

    private void symbol(char c) {
        int from = at;
        String two = text.substring(at, Math.min(text.length(), at + 2));
        String meant = switch (two) {
            case "==" -> "=";
            case "!=" -> "<>";
            case "&&" -> "AND";
            case "||" -> "OR";
            default -> null;
        };
        if (meant != null) {
            at += 2;
            complaints.at(place(from, at), two + " is no operator of Structured Text: write " + meant + (two.equals("==") ? " to compare, := to assign." : "."), TextMend.replace(place(from, at), meant));
            tokens.add(new Token(meant.length() > 2 || meant.equals("OR") ? Kind.WORD : Kind.SYMBOL, meant, place(from, at), from, at));
        } else if (SYMBOLS.contains(two)) {
            at += 2;
            add(Kind.SYMBOL, from);
        } else if (two.equals("?=")) {
            at += 2;
            complaints.at(place(from, at), "Not supported yet: ?= (assignment of references).");
        } else if (two.length() == 2 && two.charAt(1) == '=' && "+-*/".indexOf(c) >= 0) {
            at += 2;
            complaints.at(place(from, at), two + " is no operator of Structured Text: write x := x " + c + " …");
            tokens.add(new Token(Kind.SYMBOL, ":=", place(from, at), from, at));
        } else if ("+-*/=<>&()[],;:.^".indexOf(c) >= 0) {
            at++;
            add(Kind.SYMBOL, from);
        } else if (c == '%' && Character.isLetter(peek(1))) {
            at++;
            while (inWord(peek(0)) || peek(0) == '.' && Character.isDigit(peek(1))) {
                at++;
            }
            add(Kind.LITERAL, from);
        } else {
            int point = text.codePointAt(at);
            at += Character.charCount(point);
            // One remark for a run of such characters: a pasted picture or a binary file is one mistake.
            while (at < text.length() && text.charAt(at) != '\n' && !Character.isWhitespace(text.charAt(at)) && !inWord(text.charAt(at))
                    && "+-*/=<>&()[],;:.^'\"{".indexOf(text.charAt(at)) < 0) {
                at++;
            }
            String shown = Character.isISOControl(point) || Character.isSurrogate((char) point) ? String.format("The character U+%04X", point) : Character.toString(point);
            complaints.at(place(from, at), shown + " cannot stand here" + (c == '!' ? ": for \"not\" write NOT." : "."));
        }
    }
}
