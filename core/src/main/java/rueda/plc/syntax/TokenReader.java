package rueda.plc.syntax;

import java.util.List;
import rueda.plc.syntax.Token.Kind;

/** Goes along the tokens of a text and tells what is wrong with them; the parsers of expressions, statements, declarations and units build on it. */
abstract class TokenReader {

    /** A mistake that has been told; the statement cannot be read on. */
    static final class Lost extends RuntimeException {
        Lost() {
            super(null, null, false, false);
        }
    }

    final List<Token> tokens;
    final Complaints complaints;
    int at;
    /** The rest is not read, and nothing more is said of it. */
    boolean silent;

    TokenReader(Lexer.Cut text, Complaints complaints) {
        tokens = text.tokens();
        silent = text.cut();
        this.complaints = complaints;
    }

    Token here() {
        return tokens.get(at);
    }

    Token ahead(int count) {
        return tokens.get(Math.min(at + count, tokens.size() - 1));
    }

    Token before() {
        return tokens.get(Math.max(0, at - 1));
    }

    Token take() {
        Token token = here();
        if (token.kind() != Kind.END) {
            at++;
        }
        return token;
    }

    boolean taken(String wanted) {
        if (here().is(wanted)) {
            at++;
            return true;
        }
        return false;
    }

    void tell(Place place, String message) {
        tell(place, message, null);
    }

    void tell(Place place, String message, TextMend mend) {
        if (silent) {
            return;
        }
        complaints.at(place, message, mend);
        if (complaints.full()) {
            throw new Lost();
        }
    }

    Lost lost(Place place, String message) {
        if (!silent) {
            complaints.at(place, message);
        }
        return new Lost();
    }

    /** Where something is missing: right behind the last token. */
    Place gap() {
        Token last = before();
        return new Place(last.place().line(), last.place().column() + last.place().length(), 1);
    }

    Place from(Token first) {
        Token last = before();
        int length = last.place().line() == first.place().line() ? last.to() - first.from() : first.to() - first.from();
        return new Place(first.place().line(), first.place().column(), Math.max(1, length));
    }

    Place from(Place first) {
        Token last = before();
        int end = last.place().column() + last.place().length();
        return last.place().line() == first.line() ? new Place(first.line(), first.column(), Math.max(1, end - first.column())) : first;
    }

    static String shown(Token token) {
        return token.kind() == Kind.END ? "the end of the text" : token.text().length() > 40 ? token.text().substring(0, 40) + "…" : token.text();
    }

    // ---- words and signs

    /** END IF in two words: told, and taken. */
    boolean endOf(String what) {
        if (!endsWithSpace(what)) {
            return false;
        }
        Token end = take();
        take();
        tell(from(end), "Write END_" + what + " in one word.", TextMend.replace(from(end), "END_" + what));
        return true;
    }

    boolean endsWithSpace(String what) {
        return here().is("END") && ahead(1).is(what);
    }

    /** The word is here, or one that is nearly it; that is told, and read as it. */
    boolean misspelt(String wanted) {
        Token token = here();
        if (token.is(wanted)) {
            return true;
        }
        boolean nameUsed = ahead(1).is(":=") || ahead(1).is("(") || ahead(1).is(".") || ahead(1).is(":") || ahead(1).is("=");
        if (!token.isName() || nameUsed || wanted.length() < 3 && !token.text().equalsIgnoreCase(new StringBuilder(wanted).reverse().toString())) {
            return false;
        }
        if (Words.nearest(token.text(), List.of(wanted)).isEmpty()) {
            return false;
        }
        tell(token.place(), token.text() + " is no word of the language. Did you mean " + wanted + "?");
        tokens.set(at, new Token(Kind.WORD, wanted, token.place(), token.from(), token.to()));
        return true;
    }

    void semicolon() {
        if (!taken(";")) {
            missingSemicolon("statement");
        }
    }

    void missingSemicolon(String what) {
        Token next = here();
        Token last = before();
        boolean openText = last.kind() == Kind.LITERAL && (last.text().indexOf('\'') >= 0 || last.text().indexOf('"') >= 0) && !last.text().matches("(?s).*['\"]");
        if (openText) {
            // Told already: the rest of the line belongs to a text that is not closed.
            return;
        }
        if (next.is(")") || next.is("]")) {
            throw lost(next.place(), "This " + next.text() + " closes nothing.");
        }
        boolean starts = next.kind() == Kind.END || next.kind() == Kind.WORD || next.place().line() > before().place().line();
        if (!starts) {
            throw lost(next.place(), shown(next) + " is not expected here: an operator or a ; is missing before it.");
        }
        boolean sameLine = next.isName() && next.place().line() == before().place().line() && !ahead(1).is(":=") && !ahead(1).is("(") && !ahead(1).is(":") && !ahead(1).is(".");
        if (sameLine || next.kind() == Kind.WORD && (next.is("TRUE") || next.is("FALSE") || next.is("NOT"))) {
            throw lost(next.place(), "An operator is missing before " + shown(next) + ".");
        }
        tell(gap(), "A ; is missing at the end of this " + what + ".", TextMend.insert(gap(), ";"));
    }

    /** 2,5 where no list can stand. */
    void decimalComma() {
        Token comma = here();
        Token digits = ahead(1);
        boolean number = before().kind() == Kind.LITERAL && digits.kind() == Kind.LITERAL && before().to() == comma.from() && comma.to() == digits.from();
        if (comma.is(",") && number) {
            Place place = new Place(before().place().line(), before().place().column(), digits.to() - before().from());
            tell(place, "Write a decimal point: " + before().text() + "." + digits.text() + ".");
            take();
            take();
        }
    }

    static boolean isAddress(Token token) {
        return token.kind() == Kind.LITERAL && token.text().startsWith("%");
    }

    /** What was written since the token at an index, shortened. */
    String written(int first) {
        StringBuilder text = new StringBuilder();
        for (int i = first; i < at && text.length() < 40; i++) {
            text.append(tokens.get(i).text());
        }
        return text.toString();
    }
}
