package rueda.edit;

import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import rueda.machine.Condition;
import rueda.machine.Expectation;
import rueda.machine.Proof;
import rueda.machine.ScriptStep;

/** How proofs follow a change of the axes, or of names in the program. */
public final class ProofEdit {

    private ProofEdit() {
    }

    /** The proof once an axis has another name: also where its sentences name it. */
    static Proof renamed(Proof proof, String from, String to) {
        return changed(proof, name -> from.equalsIgnoreCase(name) ? to : name, written -> followedIn(written, from, to));
    }

    /**
     * The proofs once values of the program have other names.
     *
     * @param before names of all values of the program  @param after the names of the same values now, in the same order
     */
    public static List<Proof> renamed(List<Proof> proofs, List<String> before, List<String> after) {
        if (before.size() != after.size()) {
            throw new IllegalArgumentException(before.size() + " values became " + after.size());
        }
        /* longer names first: a value inside of another one is called by both */
        List<Integer> changed = IntStream.range(0, before.size()).filter(i -> !before.get(i).equals(after.get(i))).boxed().sorted(Comparator.comparingInt((Integer i) -> before.get(i).length()).reversed()).toList();
        UnaryOperator<String> text = written -> {
            String now = written;
            for (int i : changed) {
                now = now.replaceAll("(?i)(?<![\\w.])" + Pattern.quote(before.get(i)) + "(?!\\w)", Matcher.quoteReplacement(after.get(i)));
            }
            return now;
        };
        return changed.isEmpty() ? proofs : proofs.stream().map(proof -> changed(proof, name -> name, text)).toList();
    }

    private static Proof changed(Proof proof, UnaryOperator<String> axis, UnaryOperator<String> written) {
        UnaryOperator<String> text = words -> words == null ? null : written.apply(words);
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
        Proof left = without(proof, step -> about(step, axis));
        return left.withExpectations(proof.expectations().stream().filter(e -> !about(e, axis)).toList()).withConditions(left.conditions().stream().filter(c -> !axis.equalsIgnoreCase(c.axis())).toList());
    }

    /** The proof without some sentences of its script; the moments that are varied stay with theirs. */
    static Proof without(Proof proof, Predicate<ScriptStep> gone) {
        return proof.withScript(proof.script().stream().filter(gone.negate()).toList())
                .withConditions(proof.conditions().stream().map(c -> moved(c, proof.script(), gone)).filter(Objects::nonNull).toList());
    }

    private static Condition moved(Condition condition, List<ScriptStep> script, Predicate<ScriptStep> gone) {
        Integer sentence = condition.sentence();
        if (sentence == null || sentence < 0 || sentence >= script.size()) {
            return condition;
        }
        return gone.test(script.get(sentence)) ? null : condition.withSentence((int) script.subList(0, sentence).stream().filter(gone.negate()).count());
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
