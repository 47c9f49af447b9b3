package rueda.plc.syntax;

import java.util.ArrayList;
import java.util.List;

/** The statements of units as they are written, with their comments: what stands between the last section of variables and the word that ends the unit. */
public final class UnitBodies {

    private UnitBodies() {
    }

    /** In the order of the units of a text without faults. */
    public static List<String> of(String text) {
        List<Token> tokens = Lexer.cut(text, Complaints.NONE).tokens();
        List<String> bodies = new ArrayList<>();
        for (int i = 0; i < tokens.size(); i++) {
            UnitSyntax.Kind kind = kind(tokens.get(i));
            if (kind != null) {
                int from = header(tokens, i);
                int to = from;
                while (to < tokens.size() - 1 && !tokens.get(to).is(kind.end())) {
                    to++;
                }
                bodies.add(text.substring(tokens.get(from - 1).to(), tokens.get(to).from()));
                i = to;
            }
        }
        return bodies;
    }

    private static UnitSyntax.Kind kind(Token token) {
        for (UnitSyntax.Kind kind : UnitSyntax.Kind.values()) {
            if (token.is(kind.name())) {
                return kind;
            }
        }
        return null;
    }

    /** The first token behind the name, the type of a value, and the sections of variables. */
    private static int header(List<Token> tokens, int unit) {
        int at = unit + 2;
        if (at < tokens.size() && tokens.get(at).is(":")) {
            at += 2;
            if (at < tokens.size() && tokens.get(at).is("[")) {
                at += 3;
            }
        }
        if (at < tokens.size() && tokens.get(at).is(";")) {
            at++;
        }
        while (at < tokens.size() && tokens.get(at).kind() == Token.Kind.WORD && (tokens.get(at).is("VAR") || tokens.get(at).upper().startsWith("VAR_"))) {
            while (at < tokens.size() - 1 && !tokens.get(at).is("END_VAR")) {
                at++;
            }
            at++;
            if (at < tokens.size() && tokens.get(at).is(";")) {
                at++;
            }
        }
        return Math.min(at, tokens.size() - 1);
    }
}
