package rueda.plc;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.antlr.v4.runtime.BaseErrorListener;
import org.antlr.v4.runtime.ParserRuleContext;
import org.antlr.v4.runtime.RecognitionException;
import org.antlr.v4.runtime.Recognizer;
import org.antlr.v4.runtime.Token;

/** Collects the faults of one text, from the parser and from the type checker. */
final class Faults extends BaseErrorListener {

    private static final int MOST = 50;
    private final List<Diagnostic> found = new ArrayList<>();

    @Override
    public void syntaxError(Recognizer<?, ?> recognizer, Object symbol, int line, int column, String message,
                            RecognitionException exception) {
        int length = symbol instanceof Token token && token.getText() != null && token.getType() != Token.EOF
                ? token.getText().length() : 1;
        String said = symbol instanceof Token token && token.getType() == Token.EOF
                ? "The text ends here, but something is still open: " + message
                : "Not expected here: " + message.replace("<EOF>", "the end of the text");
        add(new Diagnostic(line, column + 1, length, said));
    }

    void at(ParserRuleContext place, String message) {
        Token start = place.getStart();
        Token stop = place.getStop() == null ? start : place.getStop();
        int length = stop.getLine() == start.getLine() ? stop.getStopIndex() - start.getStartIndex() + 1 : start.getText().length();
        add(new Diagnostic(start.getLine(), start.getCharPositionInLine() + 1, Math.max(1, length), message));
    }

    void at(Token place, String message) {
        add(new Diagnostic(place.getLine(), place.getCharPositionInLine() + 1, place.getText().length(), message));
    }

    private void add(Diagnostic diagnostic) {
        if (found.size() < MOST) {
            found.add(diagnostic);
        }
    }

    List<Diagnostic> sorted() {
        return found.stream().sorted(Comparator.comparingInt(Diagnostic::line).thenComparingInt(Diagnostic::column)).toList();
    }
}
