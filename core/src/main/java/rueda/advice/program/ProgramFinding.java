package rueda.advice.program;

import rueda.advice.Finding.Severity;
import rueda.plc.syntax.TextMend;

/**
 * A remark about a place of a program.
 *
 * @param kind        what it is about; page and tests go by it
 * @param line        from 1
 * @param column      from 1
 * @param title       what is so
 * @param consequence what this leads to and what to do
 * @param mend        a change of the text that mends it, or null
 */
public record ProgramFinding(Kind kind, String file, int line, int column, Severity severity, String title, String consequence, TextMend mend) {

    /** What a finding is about. */
    public enum Kind {
        MOVE_BEFORE_HOMING, HOMING_MISSING, ERROR_UNSEEN, NEVER_TAKEN_BACK, TWO_ORDERS, STATE_NOT_REACHED, STATE_NOT_LEFT, TIMER_NEVER_RESET, BLOCKING_WAIT, UNITS_MIXED, COMPARED_FOR_EQUALITY, PROGRAM_MISSING, TAG_MISSING
    }
}
