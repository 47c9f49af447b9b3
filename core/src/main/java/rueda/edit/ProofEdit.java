package rueda.edit;

import java.util.List;
import java.util.Objects;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import rueda.machine.Condition;
import rueda.machine.Expectation;
import rueda.machine.Proof;
import rueda.machine.ScriptStep;

/** How a proof follows a change of the axes. */
final class ProofEdit {

    private ProofEdit() {
    }

    /** The proof once an axis has another name: also where its sentences name it. */
    static Proof renamed(Proof proof, String from, String to) {
        UnaryOperator<String> axis = name -> from.equalsIgnoreCase(name) ? to : name;
        UnaryOperator<String> text = written -> written == null ? null : followedIn(written, from, to);
        return proof.withScript(proof.script().stream().map(s -> s.withAxis(axis.apply(s.axis())).withTarget(text.apply(s.target())).withValue(text.apply(s.value())).withWhen(text.apply(s.when())).withUntil(text.apply(s.until()))).toList())
                .withExpectations(proof.expectations().stream().map(e -> e.withAxis(axis.apply(e.axis())).withOther(axis.apply(e.other())).withAfter(text.apply(e.after())).withThen(text.apply(e.then()))
                        .withWhen(text.apply(e.when())).withSignal(text.apply(e.signal())).withText(text.apply(e.text()))).toList())
                .withConditions(proof.conditions().stream().map(c -> c.withAxis(axis.apply(c.axis()))).toList());
    }

    /** An axis' name in a sentence stands before a dot, and not behind one. */
    private static String followedIn(String sentence, String from, String to) {
        return sentence.replaceAll("(?i)(?<![\\w.])" + Pattern.quote(from) + "(?=\\.)", Matcher.quoteReplacement(to));
    }

    /** The proof without what is about an axis; the moments that are varied stay with their sentences. */
    static Proof without(Proof proof, String axis) {
        List<ScriptStep> script = proof.script().stream().filter(s -> !about(s, axis)).toList();
        return proof.withScript(script).withExpectations(proof.expectations().stream().filter(e -> !about(e, axis)).toList())
                .withConditions(proof.conditions().stream().filter(c -> !axis.equalsIgnoreCase(c.axis())).map(c -> moved(c, proof.script(), axis)).filter(Objects::nonNull).toList());
    }

    private static Condition moved(Condition condition, List<ScriptStep> script, String axis) {
        Integer sentence = condition.sentence();
        if (sentence == null || sentence < 0 || sentence >= script.size()) {
            return condition;
        }
        return about(script.get(sentence), axis) ? null : condition.withSentence((int) script.subList(0, sentence).stream().filter(s -> !about(s, axis)).count());
    }

    private static boolean about(ScriptStep step, String axis) {
        return axis.equalsIgnoreCase(step.axis());
    }

    private static boolean about(Expectation expectation, String axis) {
        return axis.equalsIgnoreCase(expectation.axis()) || axis.equalsIgnoreCase(expectation.other());
    }

    /** How many of its sentences go with an axis. */
    static long dependents(Proof proof, String axis) {
        Proof left = without(proof, axis);
        return proof.expectations().size() - left.expectations().size() + proof.script().size() - left.script().size() + proof.conditions().size() - left.conditions().size();
    }
}
