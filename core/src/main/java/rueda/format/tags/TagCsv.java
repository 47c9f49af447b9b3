package rueda.format.tags;

import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import rueda.format.SpreadsheetCells;
import rueda.format.Text;
import rueda.format.UnreadableFile;
import rueda.plc.ProcessAddress;
import rueda.plc.TagRow;
import rueda.plc.type.Type;

/** Tag tables as CSV (RFC 4180), separated by comma, semicolon or tab; which column holds what is chosen. */
public final class TagCsv {

    private static final int MOST_ROWS = 20_000;

    private TagCsv() {
    }

    /**
     * Numbers of the columns, 0 the first, −1 for none.
     *
     * @param address such as %QW4, or a byte offset as a number
     * @param direction a column whose text begins with O, Q or A (German) for outputs, I or E for inputs
     */
    public record Columns(int name, int type, int address, int direction, int comment) {
    }

    /** The first lines, to choose columns by, and the columns that their headings suggest. */
    public record Preview(List<String> headings, List<List<String>> rows, Columns suggested) {
    }

    private static CSVFormat format(String text) {
        String first = text.lines().findFirst().orElse("");
        char separator = ',';
        for (char c : new char[] {';', '\t'}) {
            if (first.chars().filter(x -> x == c).count() > first.chars().filter(x -> x == ',').count()) {
                separator = c;
            }
        }
        return CSVFormat.RFC4180.builder().setDelimiter(separator).setIgnoreEmptyLines(true).setTrim(true).get();
    }

    private static List<CSVRecord> records(String text) {
        List<CSVRecord> records = new ArrayList<>();
        try (CSVParser parser = format(text).parse(new StringReader(text))) {
            Iterator<CSVRecord> rows = parser.iterator();
            while (anotherRow(rows, parser)) {
                records.add(rows.next());
                if (records.size() > MOST_ROWS) {
                    throw new UnreadableFile("line " + parser.getCurrentLineNumber(), "more than " + MOST_ROWS + " lines", "up to " + MOST_ROWS, "take what belongs to this station");
                }
            }
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
        if (records.size() < 2) {
            throw new UnreadableFile("File", records.size() + " lines", "a line of headings and at least one row", "choose a tag table");
        }
        return records;
    }

    private static boolean anotherRow(Iterator<CSVRecord> rows, CSVParser parser) {
        try {
            return rows.hasNext();
        } catch (UncheckedIOException | IllegalStateException broken) {
            throw new UnreadableFile("line " + Math.max(1, parser.getCurrentLineNumber()), "a quotation mark out of place", "CSV by RFC 4180: a quotation mark in a field is doubled, a field in quotation marks ends with one", "save the table again as CSV");
        }
    }

    /** @throws UnreadableFile when it is no table */
    public static Preview preview(byte[] file) {
        List<CSVRecord> records = records(Text.decoded(file));
        List<String> headings = records.get(0).toList();
        List<List<String>> rows = records.subList(1, Math.min(6, records.size())).stream().map(CSVRecord::toList).toList();
        return new Preview(headings, rows, new Columns(found(headings, "name|tag|symbol|variable|bezeichner|bezeichnung"), found(headings, "(data ?)?type|datentyp|typ\\b"), found(headings, "(logical |logische )?(address|adresse)|offset|byte|place"),
                found(headings, "direction|area|in/out|i/o|richtung|bereich|e/a"), found(headings, "comment|description|remark|kommentar|beschreibung|bemerkung")));
    }

    private static int found(List<String> headings, String words) {
        for (int i = 0; i < headings.size(); i++) {
            if (headings.get(i).toLowerCase(Locale.ROOT).strip().matches("(" + words + ").*")) {
                return i;
            }
        }
        return -1;
    }

    /** @throws UnreadableFile naming line and column */
    public static List<TagRow> read(byte[] file, Columns columns, ProcessAddress.Counts counts) {
        String text = Text.decoded(file);
        List<CSVRecord> records = records(text);
        List<String> headings = records.get(0).toList();
        need("Name", columns.name(), headings);
        need("Type", columns.type(), headings);
        List<TagRow> rows = new ArrayList<>();
        Set<String> names = new HashSet<>();
        // The line of the file: empty lines, and line breaks in quotation marks, count.
        int line = 1;
        int counted = 0;
        for (CSVRecord record : records.subList(1, records.size())) {
            for (int end = (int) Math.min(text.length(), record.getCharacterPosition()); counted < end; counted++) {
                line += text.charAt(counted) == '\n' ? 1 : 0;
            }
            String place = "line " + line;
            String name = field(record, columns.name());
            if (name.isEmpty()) {
                continue;
            }
            String typeName = field(record, columns.type());
            Type type = Type.named(typeName);
            if (type == null || type.isText() || type == Type.AXIS_REF) {
                throw new UnreadableFile(place + ", " + headings.get(columns.type()), typeName, "an elementary type of fixed size, such as DINT or WORD", "correct it, or choose another column for the type");
            }
            if (!names.add(name.toLowerCase(Locale.ROOT))) {
                throw new UnreadableFile(place + ", " + headings.get(columns.name()), name, "each name once", "rename one");
            }
            rows.add(row(record, columns, counts, name, type, place, headings));
        }
        if (rows.isEmpty()) {
            throw new UnreadableFile("File", "no row with a name", "at least one", "choose another column for the name");
        }
        return rows;
    }

    private static TagRow row(CSVRecord record, Columns columns, ProcessAddress.Counts counts, String name, Type type, String place, List<String> headings) {
        String address = field(record, columns.address());
        String direction = field(record, columns.direction()).toUpperCase(Locale.ROOT);
        Boolean output = direction.startsWith("O") || direction.startsWith("Q") || direction.startsWith("A") ? Boolean.TRUE : direction.startsWith("I") || direction.startsWith("E") ? Boolean.FALSE : null;
        int offset = -1;
        if (!address.isEmpty()) {
            Optional<ProcessAddress> direct = ProcessAddress.of(address, counts);
            if (direct.isPresent()) {
                offset = direct.get().bitOffset();
                output = direct.get().output();
            } else if (address.matches("\\d{1,6}([.:][0-7])?")) {
                String[] parts = address.split("[.:]");
                offset = Integer.parseInt(parts[0]) * 8 + (parts.length > 1 ? Integer.parseInt(parts[1]) : 0);
            } else {
                throw new UnreadableFile(place + ", " + headings.get(columns.address()), address, "an address such as %QW4, or bytes from the start such as 4 or 4.3", "correct it, or choose another column for the address");
            }
        }
        return new TagRow(name, type, output, offset, field(record, columns.comment()));
    }

    private static void need(String what, int column, List<String> headings) {
        if (column < 0 || column >= headings.size()) {
            throw new UnreadableFile("Column of the " + what.toLowerCase(Locale.ROOT), column < 0 ? "none" : Integer.toString(column), "one of " + String.join(", ", headings), "choose the column");
        }
    }

    private static String field(CSVRecord record, int column) {
        return column >= 0 && column < record.size() ? SpreadsheetCells.read(record.get(column).strip()) : "";
    }

    /** A table with a line of headings, read back with the columns that {@link #preview} suggests. */
    public static String write(List<TagRow> rows) {
        StringBuilder text = new StringBuilder();
        try (org.apache.commons.csv.CSVPrinter out = new org.apache.commons.csv.CSVPrinter(text, CSVFormat.RFC4180)) {
            out.printRecord("Name", "Type", "Address", "Comment");
            for (TagRow row : rows) {
                out.printRecord(SpreadsheetCells.written(row.name()), row.type(), row.address(), SpreadsheetCells.written(row.comment()));
            }
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
        return text.toString();
    }
}
