package rueda.format.tags;

import java.nio.charset.StandardCharsets;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;
import rueda.machine.Plc.DeclaredTag;
import rueda.plc.ProcessAddress;
import rueda.plc.TagRow;

/** Tables of PLC tags in every format that is read and written. */
public final class TagTable {

    /** How a table is written. */
    public enum Format { CSV, XML, STRUCTURED_TEXT }

    private static final Pattern BEGINNING = Pattern.compile("(?i)(TYPE|VAR(_GLOBAL|_INPUT|_OUTPUT)?)\\b");

    private TagTable() {
    }

    /** The format of a text by what it begins with, behind blanks and comments. */
    public static Format format(String text) {
        String head = code(text == null ? "" : text.replaceFirst("^\uFEFF", ""));
        return head.startsWith("<") ? Format.XML : BEGINNING.matcher(head).lookingAt() ? Format.STRUCTURED_TEXT : Format.CSV;
    }

    /** The text from where it is neither blank nor comment; a comment that is not closed leaves nothing. */
    private static String code(String text) {
        int at = 0;
        while (at < text.length()) {
            int end = Character.isWhitespace(text.charAt(at)) ? at + 1 : text.startsWith("(*", at) ? behind(text, "*)", at + 2) : text.startsWith("//", at) ? behind(text, "\n", at) : at;
            if (end == at) {
                return text.substring(at, Math.min(text.length(), at + 40));
            }
            at = end;
        }
        return "";
    }

    private static int behind(String text, String end, int from) {
        int found = text.indexOf(end, from);
        return found < 0 ? text.length() : found + end.length();
    }

    /** Headings and first lines of a CSV. */
    public static TagCsv.Preview preview(String text) {
        return TagCsv.preview(bytes(text));
    }

    /**
     * Reads a table.
     *
     * @param columns   of a CSV; null for those that its headings suggest
     * @param alignment bytes the PLC aligns members of structures to
     * @param counts    what the numbers of addresses count
     */
    public static List<TagRow> read(String text, TagCsv.Columns columns, int alignment, ProcessAddress.Counts counts) {
        byte[] bytes = bytes(text);
        return switch (format(text)) {
            case CSV -> TagCsv.read(bytes, columns == null ? TagCsv.preview(bytes).suggested() : columns, counts);
            case XML -> PlcOpenXml.read(bytes, alignment, counts);
            case STRUCTURED_TEXT -> TagDeclarationsReader.read(bytes, alignment, counts);
        };
    }

    /** Tags of declarations: members as in a structure, such as {@code Probe : ARRAY[1..2] OF DINT;}, or whole TYPE and VAR blocks. */
    public static List<DeclaredTag> declared(String declarations) {
        String text = declarations == null ? "" : declarations.strip();
        boolean whole = text.toUpperCase(Locale.ROOT).matches("(?s)(TYPE|VAR)\\b.*|VAR_\\w+.*");
        String block = whole ? text : "VAR_GLOBAL " + (text.endsWith(";") ? text : text + ";") + " END_VAR";
        return TagDeclarationsReader.read(bytes(block), 1, ProcessAddress.Counts.BYTES).stream().map(r -> new DeclaredTag(r.name(), r.type().name())).toList();
    }

    /** @param project name that XML carries  @param written when, for XML */
    public static String write(Format format, List<TagRow> rows, String project, LocalDateTime written) {
        return switch (format) {
            case CSV -> TagCsv.write(rows);
            case XML -> PlcOpenXml.write(project, written.truncatedTo(ChronoUnit.SECONDS).toString(), rows);
            case STRUCTURED_TEXT -> TagDeclarationsWriter.write(rows);
        };
    }

    /** Name of a file of this format. */
    public static String fileName(Format format) {
        return switch (format) {
            case CSV -> "tags.csv";
            case XML -> "tags.xml";
            case STRUCTURED_TEXT -> "tags.st";
        };
    }

    private static byte[] bytes(String text) {
        return text == null ? new byte[0] : text.getBytes(StandardCharsets.UTF_8);
    }
}
