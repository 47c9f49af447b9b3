package rueda.format;

/**
 * Text in the cells of a CSV. A spreadsheet takes a cell that begins with =, +, − or @ for a formula; such text gets an apostrophe before it,
 * which spreadsheets do not show, and loses it when it is read back. Numbers stay as they are.
 */
public final class SpreadsheetCells {

    private static final String NUMBER = "[+-]?[0-9]+([.,][0-9]+)?([eE][+-]?[0-9]+)?";

    private SpreadsheetCells() {
    }

    /** What is written. */
    public static String written(String text) {
        return text != null && (begins(text) && !text.matches(NUMBER) || text.startsWith("'") && begins(text.substring(1))) ? "'" + text : text;
    }

    /** What was meant. */
    public static String read(String cell) {
        return cell.startsWith("'") && (begins(cell.substring(1)) || cell.startsWith("''")) ? cell.substring(1) : cell;
    }

    private static boolean begins(String text) {
        return !text.isEmpty() && "=+-@\t\r".indexOf(text.charAt(0)) >= 0;
    }
}
