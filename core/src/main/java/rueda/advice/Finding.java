package rueda.advice;

import java.util.List;

/**
 * A computed remark.
 *
 * @param stage       stage it belongs to, in lower case
 * @param axis        name of the axis, empty for the whole machine
 * @param severity    how bad
 * @param title       what is so
 * @param consequence what this leads to
 * @param mend        a change that would mend it, or null
 */
public record Finding(String stage, String axis, Severity severity, String title, String consequence, Mend mend) {

    /** How bad a finding is. */
    public enum Severity { GOOD, WARNING, FAULT }

    /** @param label what the mend does  @param changes of the document, in order */
    public record Mend(String label, List<Change> changes) {
        public static Mend set(String label, String pointer, Object value) {
            return new Mend(label, List.of(new Change("replace", pointer, value)));
        }

        public static Mend insert(String label, String pointer, Object value) {
            return new Mend(label, List.of(new Change("add", pointer, value)));
        }
    }

    /** One operation of a JSON Patch, RFC 6902. @param op add, replace or remove  @param path JSON pointer  @param value new value */
    public record Change(String op, String path, Object value) {
    }
}
