package rueda.format.recording;

import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.util.Arrays;
import java.util.List;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import rueda.format.recording.RecordingLayout.Separator;

/** A line in its columns, and what stands in them. */
final class Cells {

    /** Powers of ten that a double holds exactly. */
    private static final double[] TEN = {1e0, 1e1, 1e2, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9, 1e10, 1e11, 1e12, 1e13, 1e14, 1e15, 1e16, 1e17, 1e18, 1e19, 1e20, 1e21, 1e22};
    private static final long MOST_EXACT = 1L << 53;

    private Cells() {
    }

    static CSVFormat format(Separator separator) {
        return CSVFormat.RFC4180.builder().setDelimiter(separator.character()).setIgnoreEmptyLines(true).setIgnoreSurroundingSpaces(true).setTrim(true).get();
    }

    /** One line alone; a quotation mark out of place stands for itself. */
    static List<String> of(String line, Separator separator) {
        if (line.isBlank()) {
            return List.of();
        }
        if (separator == Separator.SPACES) {
            return Arrays.asList(line.strip().split("\\s+"));
        }
        try (CSVParser parser = format(separator).parse(new StringReader(line))) {
            return parser.iterator().next().toList();
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        } catch (UncheckedIOException | IllegalStateException quotationMark) {
            return Arrays.asList(line.split(java.util.regex.Pattern.quote(String.valueOf(separator.character())), -1));
        }
    }

    /** A number, or on or off in words; nothing at all, and what says that it is no number, is NaN. @throws NumberFormatException when it is nothing of those */
    static double number(String cell, boolean decimalComma) {
        int length = cell.length();
        if (length == 0) {
            return Double.NaN;
        }
        char mark = decimalComma ? ',' : '.';
        long digits = 0;
        int decimals = -1;
        int counted = 0;
        int i = cell.charAt(0) == '-' || cell.charAt(0) == '+' ? 1 : 0;
        for (; i < length; i++) {
            char c = cell.charAt(i);
            if (c >= '0' && c <= '9' && counted < 18) {
                digits = 10 * digits + (c - '0');
                counted += digits == 0 ? 0 : 1;
                decimals += decimals >= 0 ? 1 : 0;
            } else if (c == mark && decimals < 0) {
                decimals = 0;
            } else {
                break;
            }
        }
        /* both exact, so their quotient is the nearest double (Clinger 1990) */
        if (i == length && i > 0 && digits <= MOST_EXACT && decimals < TEN.length && Character.isDigit(cell.charAt(length - 1))) {
            double value = decimals > 0 ? digits / TEN[decimals] : digits;
            return cell.charAt(0) == '-' ? -value : value;
        }
        return rare(cell, mark);
    }

    private static double rare(String cell, char mark) {
        String text = cell.replace('\u2212', '-').replace("\u00A0", "");
        switch (text.toLowerCase(java.util.Locale.ROOT)) {
            case "true", "on", "high", "wahr", "ein" -> {
                return 1;
            }
            case "false", "off", "low", "falsch", "aus" -> {
                return 0;
            }
            case "nan", "inf", "-inf", "+inf", "infinity", "-infinity", "null", "n/a", "#n/a", "-", "--", "---" -> {
                return Double.NaN;
            }
            default -> {
                String plain = mark == ',' ? text.replace(',', '.') : text;
                if (mark == ',' && text.indexOf('.') >= 0 || !plain.matches("[+-]?([0-9]+\\.?[0-9]*|\\.[0-9]+)([eE][+-]?[0-9]{1,3})?")) {
                    throw new NumberFormatException(cell);
                }
                double value = Double.parseDouble(plain);
                return Double.isFinite(value) ? value : Double.NaN;
            }
        }
    }
}
