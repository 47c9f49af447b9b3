package rueda.plc.syntax;

import java.util.ArrayList;
import java.util.List;
import java.util.TreeSet;

/** Where a program names something, also a program that cannot be compiled. Costs a reading of its tokens. */
public final class NameUses {

    private NameUses() {
    }

    /**
     * The text with one name in place of another. Identifiers are the same in any case (IEC 61131-3, 6.1.2); what follows a dot is the
     * member of something else, and stays; comments and literals stay.
     */
    public static String renamed(String program, String from, String to) {
        StringBuilder text = new StringBuilder();
        int done = 0;
        for (Token use : uses(program, from)) {
            text.append(program, done, use.from()).append(to);
            done = use.to();
        }
        return text.append(program, done, program.length()).toString();
    }

    /** Lines that name it, counted from 1, in ascending order. */
    public static List<Integer> lines(String program, String name) {
        TreeSet<Integer> lines = new TreeSet<>();
        uses(program, name).forEach(use -> lines.add(use.place().line()));
        return List.copyOf(lines);
    }

    /** Lines that name it by itself, not as the head of a longer name: an axis that a block gets, but not its tags. Counted from 1, in ascending order. */
    public static List<Integer> linesAlone(String program, String name) {
        TreeSet<Integer> lines = new TreeSet<>();
        List<Token> tokens = Lexer.cut(program, Complaints.NONE).tokens();
        for (int i = 0; i < tokens.size(); i++) {
            Token token = tokens.get(i);
            boolean named = token.kind() == Token.Kind.WORD && token.text().equalsIgnoreCase(name);
            boolean member = i > 0 && tokens.get(i - 1).is(".") || i + 1 < tokens.size() && tokens.get(i + 1).is(".");
            if (named && !member) {
                lines.add(token.place().line());
            }
        }
        return List.copyOf(lines);
    }

    private static List<Token> uses(String program, String name) {
        List<Token> uses = new ArrayList<>();
        Token before = null;
        for (Token token : Lexer.cut(program, Complaints.NONE).tokens()) {
            if (token.kind() == Token.Kind.WORD && token.text().equalsIgnoreCase(name) && (before == null || !before.is("."))) {
                uses.add(token);
            }
            before = token;
        }
        return uses;
    }
}
