package rueda.machine;

import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A sentence with slots: words, and names of entries in braces, such as {@code {axis} arrives at {position}}. Whoever shows it puts a field
 * where a slot stands.
 */
public final class SentenceSlots {

    private static final Pattern SLOT = Pattern.compile("\\{(\\w+)}");

    private SentenceSlots() {
    }

    /** Names of the slots, in the order in which they are read. */
    public static List<String> of(String pattern) {
        return SLOT.matcher(pattern).results().map(slot -> slot.group(1)).toList();
    }

    /** The sentence with its slots filled. @param value what stands in a slot, by its name */
    public static String filled(String pattern, java.util.function.Function<String, String> value) {
        return SLOT.matcher(pattern).replaceAll(slot -> Matcher.quoteReplacement(value.apply(slot.group(1))));
    }
}
