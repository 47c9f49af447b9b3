package rueda.plc.syntax;

import java.util.List;

/**
 * A program organisation unit as written (IEC 61131-3, 6.6).
 *
 * @param result       type of a FUNCTION's value, null where it has none and for the other kinds
 * @param place        where its name stands
 */
public record UnitSyntax(Kind kind, String name, Place place, TypeSyntax result, List<Declaration> declarations, List<StatementSyntax> body) {

    /** What a unit is. */
    public enum Kind {
        PROGRAM, FUNCTION, FUNCTION_BLOCK;

        /** The word that ends it. */
        String end() {
            return "END_" + name();
        }
    }

    /** Where variables are declared, and so what may be done with them. */
    public enum Section {
        VAR, VAR_INPUT, VAR_OUTPUT, VAR_IN_OUT, VAR_TEMP, VAR_GLOBAL, VAR_EXTERNAL
    }

    /** How an input takes its value: as it is, or only its edges. */
    public enum Edge { NONE, RISING, FALLING }

    /**
     * Variables of one type.
     *
     * @param address of AT %QW4, or null
     * @param initial or null
     * @param constant of a section CONSTANT
     * @param retained of a section RETAIN
     */
    public record Declaration(List<ExpressionSyntax.Name> names, Section section, boolean constant, boolean retained, ExpressionSyntax.Address address, TypeSyntax type,
                              Edge edge, ExpressionSyntax initial) {
    }
}
