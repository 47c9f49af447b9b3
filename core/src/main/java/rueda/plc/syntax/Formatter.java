package rueda.plc.syntax;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import rueda.plc.syntax.Token.Kind;

/**
 * Indents a text by its structure, two blanks a level, and writes the words of the language in capitals. Lines stay lines: what goes on in
 * a further line keeps its place against the first one, and so does a comment of several lines. Nothing else changes.
 */
public final class Formatter {

    private static final String LEVEL = "  ";
    private static final Set<String> UNITS = Set.of("PROGRAM", "FUNCTION", "FUNCTION_BLOCK");
    private static final Set<String> OPENERS = Set.of("PROGRAM", "FUNCTION", "FUNCTION_BLOCK", "TYPE", "STRUCT", "IF", "CASE", "FOR", "WHILE", "REPEAT");
    /** Behind these a statement or a declaration begins. */
    private static final Set<String> BEGIN = Set.of(";", "THEN", "DO", "OF", "ELSE", "REPEAT", "STRUCT");

    private final String text;
    private final List<Token> tokens;
    private final Deque<String> open = new ArrayDeque<>();
    private final StringBuilder out = new StringBuilder();
    private int next;
    /** a statement or declaration has begun and not ended */
    private boolean within;
    /** by how much its first line was moved */
    private int moved;
    /** depth of comments that reach into the line */
    private int comments;

    private Formatter(String text) {
        this.text = text;
        tokens = Lexer.cut(text, Complaints.NONE).tokens();
    }

    public static String format(String text) {
        return new Formatter(text).formatted();
    }

    private String formatted() {
        int start = 0;
        String[] lines = text.split("\n", -1);
        for (int i = 0; i < lines.length; i++) {
            line(lines[i], start);
            out.append(i + 1 < lines.length ? "\n" : "");
            start += lines[i].length() + 1;
        }
        return out.toString();
    }

    /** @param start index of its first character */
    private void line(String line, int start) {
        int end = start + line.length();
        List<Token> here = new ArrayList<>();
        while (tokens.get(next).kind() != Kind.END && tokens.get(next).from() < end) {
            here.add(tokens.get(next++));
        }
        String content = line.stripLeading();
        int before = line.length() - content.length();
        boolean inComment = comments > 0;
        comments(here, line, start);
        if (content.isBlank()) {
            return;
        }
        boolean goesOn = inComment || within && !here.isEmpty() && !closes(here.get(0)) && !OPENERS.contains(here.get(0).upper()) && !isSection(here.get(0));
        int indent = goesOn ? Math.max(0, before + moved) : LEVEL.length() * depth(here);
        if (!goesOn) {
            moved = indent - before;
        }
        out.append(" ".repeat(indent)).append(capitals(content, here, start + before).stripTrailing());
        here.forEach(this::take);
        lineEnds(here);
    }

    /** Comments that begin or end between the tokens of a line. */
    private void comments(List<Token> here, String line, int start) {
        int at = start;
        int end = start + line.length();
        int token = 0;
        while (at < end) {
            if (comments == 0 && token < here.size() && here.get(token).from() == at) {
                at = Math.max(at + 1, here.get(token++).to());
            } else if (comments == 0 && text.startsWith("//", at)) {
                return;
            } else if (text.startsWith("(*", at)) {
                comments++;
                at += 2;
            } else if (comments > 0 && text.startsWith("*)", at)) {
                comments--;
                at += 2;
            } else {
                at++;
            }
        }
    }

    private static boolean closes(Token token) {
        return token.kind() == Kind.WORD && (token.upper().startsWith("END_") || token.is("ELSE") || token.is("ELSIF") || token.is("UNTIL"));
    }

    private static boolean isSection(Token token) {
        return token.kind() == Kind.WORD && (token.is("VAR") || token.upper().startsWith("VAR_"));
    }

    /** Levels of a line that begins something. */
    private int depth(List<Token> here) {
        int depth = 0;
        for (String word : open) {
            /* sections of a unit stand where its own words do */
            boolean section = word.equals("VAR") && open.size() > 1;
            depth += word.equals("CASE") ? 2 : section ? 0 : 1;
        }
        if (here.isEmpty()) {
            return depth;
        }
        Token first = here.get(0);
        String top = open.peek();
        if (closes(first) && top != null) {
            return depth - (top.equals("CASE") ? 2 : 1);
        }
        if (isSection(first) && top != null && UNITS.contains(top)) {
            return depth - 1;
        }
        return "CASE".equals(top) && isLabel(here) ? depth - 1 : depth;
    }

    /** Values and a colon: a branch of CASE. */
    private static boolean isLabel(List<Token> here) {
        for (Token token : here) {
            if (token.is(":")) {
                return true;
            }
            boolean part = token.kind() == Kind.LITERAL || token.isName() || token.is(",") || token.is("..") || token.is("-") || token.is("+") || token.is(".");
            if (!part) {
                return false;
            }
        }
        return false;
    }

    private void take(Token token) {
        String word = token.upper();
        if (token.kind() == Kind.WORD && word.startsWith("END_")) {
            if (!open.isEmpty()) {
                open.pop();
            }
            within = false;
        } else if (token.kind() == Kind.WORD && OPENERS.contains(word)) {
            open.push(word);
            within = !BEGIN.contains(word);
        } else if (isSection(token)) {
            open.push("VAR");
            within = false;
        } else if (BEGIN.contains(word) && (token.kind() == Kind.SYMBOL || token.kind() == Kind.WORD)) {
            /* ARRAY … OF is no CASE … OF */
            within = word.equals("OF") && !"CASE".equals(open.peek());
        } else if (token.is(":") && "CASE".equals(open.peek())) {
            within = false;
        } else {
            within = true;
        }
    }

    /** The line of a unit's name, and that of a section or of TYPE, is complete in itself. */
    private void lineEnds(List<Token> here) {
        if (!here.isEmpty()) {
            Token first = here.get(0);
            within &= !UNITS.contains(first.upper()) && !isSection(first) && !first.is("TYPE");
        }
    }

    private static String capitals(String content, List<Token> here, int start) {
        StringBuilder line = new StringBuilder(content);
        for (Token token : here) {
            int at = token.from() - start;
            if (token.isKeyword() && at >= 0 && at + token.text().length() <= line.length()) {
                line.replace(at, at + token.text().length(), token.text().toUpperCase(Locale.ROOT));
            }
        }
        return line.toString();
    }
}
