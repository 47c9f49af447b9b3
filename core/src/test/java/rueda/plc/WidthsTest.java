package rueda.plc;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigInteger;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.plc.run.Times;

/** Every type holds exactly its own values: IEC 61131-3, table of elementary types (from memory); REAL is binary32 and LREAL binary64 of IEC 60559. */
class WidthsTest {

    private static Resource run(String declarations, String body) {
        CompiledProgram program = StructuredTextCompiler.compile("PROGRAM T VAR " + declarations + " END_VAR\n" + body + "\nEND_PROGRAM", Environment.PLAIN);
        assertThat(program.diagnostics()).isEmpty();
        Resource task = Resource.alone(program, 100_000);
        task.cycle(0);
        assertThat(task.fault()).isNull();
        return task;
    }

    private static String value(Resource task, String name) {
        return task.text(task.program().variable(name).orElseThrow());
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '`', value = {
            // REAL: literals, constants, results, comparisons, arguments.
            "REAL   | 0.1                                       | 0.1",
            "LREAL  | r1                                        | 0.10000000149011612",
            "BOOL   | r1 = l1                                   | FALSE",
            "BOOL   | r1 = 0.1                                  | TRUE",
            "BOOL   | rc = r1                                   | TRUE",
            "BOOL   | r1 * 3.0 = REAL#0.3                       | TRUE",
            "BOOL   | l1 * 3.0 = 0.3                            | FALSE",
            "REAL   | r1 + 0.2                                  | 0.3",
            "REAL   | 16777216.0                                | 1.6777216E7",
            "REAL   | big + 1.0                                 | 1.6777216E7",
            "REAL   | MAX(r1, 0.1)                              | 0.1",
            "REAL   | SQRT(two)                                 | 1.4142135",
            "REAL   | LREAL_TO_REAL(0.1)                        | 0.1",
            "LREAL  | REAL_TO_LREAL(r1)                         | 0.10000000149011612",
            "REAL   | DINT_TO_REAL(16777217)                    | 1.6777216E7",
            "REAL   | LINT_TO_REAL(9007199791611905)            | 9.0072003E15",
            "REAL   | 2.0 ** two                                | 4.0",
            // Shown and made text without loss.
            "LREAL  | 1.0E15                                    | 1.0E15",
            "LREAL  | 1.0E-7                                    | 1.0E-7",
            "LREAL  | 1.0E20                                    | 1.0E20",
            "LREAL  | 0.1 + 0.2                                 | 0.30000000000000004",
            "STRING | LREAL_TO_STRING(1.0E-7)                   | '1.0E-7'",
            "STRING | REAL_TO_STRING(r1)                        | '0.1'",
            // ULINT and LWORD up to 2^64 - 1.
            "ULINT  | 18446744073709551615                      | 18446744073709551615",
            "ULINT  | 16#FFFF_FFFF_FFFF_FFFF                    | 18446744073709551615",
            "LWORD  | 16#FFFF_FFFF_FFFF_FFFF                    | 16#FFFFFFFFFFFFFFFF",
            "BOOL   | um > 5                                    | TRUE",
            "BOOL   | um = 18446744073709551615                 | TRUE",
            "BOOL   | um < 9223372036854775807                  | FALSE",
            "ULINT  | MIN(um, ULINT#7)                          | 7",
            "ULINT  | MAX(um, ULINT#7)                          | 18446744073709551615",
            "ULINT  | LIMIT(ULINT#1, um, ULINT#9223372036854775808) | 9223372036854775808",
            "ULINT  | um / 2                                    | 9223372036854775807",
            "ULINT  | um MOD 10                                 | 5",
            "LREAL  | ULINT_TO_LREAL(um)                        | 1.8446744073709552E19",
            "REAL   | ULINT_TO_REAL(um)                         | 1.8446744E19",
            "ULINT  | LREAL_TO_ULINT(1.8446744073709550E19)     | 18446744073709549568",
            "ULINT  | LREAL_TO_ULINT(9223372036854775808.0)     | 9223372036854775808",
            "LINT   | ULINT_TO_LINT(um)                         | -1",
            "STRING | ULINT_TO_STRING(um)                       | '18446744073709551615'",
            "ULINT  | SEL(TRUE, ULINT#0, um)                    | 18446744073709551615",
            // The lowest numbers, and signs.
            "LINT   | -9223372036854775808                      | -9223372036854775808",
            "LINT   | LINT#-9223372036854775808                 | -9223372036854775808",
            "INT    | -INT#-32768                               | -32768",
            "INT    | -low                                      | -32768",
            "SINT   | -SINT#-128                                | -128",
            "INT    | ABS(low)                                  | -32768",
            // Bits: rightmost one, and bit for bit. IEC 61131-3, tables of conversions (from memory).
            "BOOL   | BYTE_TO_BOOL(BYTE#2)                      | FALSE",
            "BOOL   | BYTE_TO_BOOL(BYTE#3)                      | TRUE",
            "BOOL   | WORD_TO_BOOL(WORD#16#8000)                | FALSE",
            "BOOL   | DWORD_TO_BOOL(DWORD#16#8000_0001)         | TRUE",
            "BOOL   | LWORD_TO_BOOL(LWORD#16#8000_0000_0000_0000) | FALSE",
            "BOOL   | INT_TO_BOOL(2)                            | TRUE",
            "REAL   | DWORD_TO_REAL(DWORD#16#3F80_0000)         | 1.0",
            "DWORD  | REAL_TO_DWORD(REAL#-2.0)                  | 16#C0000000",
            "LREAL  | LWORD_TO_LREAL(LWORD#16#3FF0_0000_0000_0000) | 1.0",
            "LWORD  | LREAL_TO_LWORD(LREAL#-2.0)                | 16#C000000000000000",
            "REAL   | DWORD_TO_REAL(REAL_TO_DWORD(r1))          | 0.1",
            // Times.
            "TOD    | TOD#23:00:00 + T#2h                       | TOD#01:00:00",
            "TOD    | TOD#01:00:00 - T#49h                      | TOD#00:00:00",
            "LTIME  | LT#100000d1ns / 1                         | T#8640000000000000001ns",
            "INT    | LEN(w)                                    | 3"})
    void expressions(String type, String expression, String expected) {
        Resource task = run("x : " + type + "; r1 : REAL := 0.1; l1 : LREAL := 0.1; big : REAL := 16777216.0; two : REAL := 2.0; um : ULINT := 18446744073709551615;"
                + " low : INT := -32768; w : STRING[32767] := 'abc'; END_VAR VAR CONSTANT rc : REAL := 0.1;", "x := " + expression + ";");
        assertThat(value(task, "x")).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "REAL  | 1.0E39                       | does not fit into REAL",
            "REAL  | -1.0E39                      | does not fit into REAL",
            "REAL  | REAL#1.0E39                  | does not fit into REAL",
            "LREAL | 1.0E308 * 10.0               | does not fit into LREAL",
            "ULINT | -1                           | does not fit into ULINT",
            "ULINT | 18446744073709551615 + 1     | does not fit into 64 bits",
            "LINT  | 9223372036854775808          | does not fit into LINT",
            "LINT  | -9223372036854775809         | does not fit into 64 bits",
            "INT   | 32768                        | does not fit into INT",
            "REAL  | WORD_TO_REAL(WORD#1)         | bit for bit",
            "WORD  | REAL_TO_WORD(REAL#1.0)       | bit for bit",
            "INT   | 2.0                          | without a fraction"})
    void refused(String type, String expression, String words) {
        CompiledProgram program = StructuredTextCompiler.compile("PROGRAM T VAR x : " + type.trim() + "; END_VAR\nx := " + expression.trim() + ";\nEND_PROGRAM", Environment.PLAIN);
        assertThat(program.diagnostics()).singleElement().satisfies(d -> {
            assertThat(d.line()).isEqualTo(2);
            assertThat(d.message()).contains(words.trim());
        });
    }

    /** FOR runs to the last value of its type and ends there. */
    @ParameterizedTest
    @CsvSource({"SINT, 126, 127, 1, 2", "SINT, -127, -128, -1, 2", "USINT, 254, 255, 1, 2", "UINT, 65534, 65535, 1, 2", "UDINT, 4294967294, 4294967295, 1, 2",
            "LINT, 9223372036854775806, 9223372036854775807, 1, 2", "LINT, -9223372036854775807, -9223372036854775808, -1, 2",
            "ULINT, 18446744073709551614, 18446744073709551615, 1, 2", "ULINT, 9223372036854775807, 9223372036854775809, 1, 3", "USINT, 0, 255, 200, 2",
            "LINT, -9223372036854775808, 9223372036854775807, 9223372036854775807, 3"})
    void loopsEndAtTheLastValue(String type, String from, String to, String by, String rounds) {
        Resource task = run("i : " + type + "; n : DINT;", "FOR i := " + from + " TO " + to + " BY " + by + " DO n := n + 1; END_FOR");
        assertThat(value(task, "n")).isEqualTo(rounds);
    }

    @ParameterizedTest
    @CsvSource({"ULINT, 18446744073709551615", "LWORD, 16#FFFF_FFFF_FFFF_FFFF", "INT, -32768"})
    void caseTakesTheWholeRange(String type, String label) {
        Resource task = run("s : " + type + " := " + label + "; n : INT;", "CASE s OF " + label + ": n := 1; ELSE n := 2; END_CASE");
        assertThat(value(task, "n")).isEqualTo("1");
    }

    /** A REAL result is the binary32 value nearest to the exact result, whatever the operands: the platform's float arithmetic is the oracle. */
    @Property(tries = 500)
    void singlePrecision(@ForAll float a, @ForAll float b) {
        for (String operator : new String[] {"+", "-", "*", "/"}) {
            float expected = switch (operator) {
                case "+" -> a + b;
                case "-" -> a - b;
                case "*" -> a * b;
                default -> a / b;
            };
            Resource task = run("x, p, q : REAL; d : DWORD;", "p := DWORD_TO_REAL(DWORD#16#" + Integer.toHexString(Float.floatToIntBits(a)) + "); q := DWORD_TO_REAL(DWORD#16#"
                    + Integer.toHexString(Float.floatToIntBits(b)) + "); x := p " + operator + " q; d := REAL_TO_DWORD(x);");
            assertThat(Double.longBitsToDouble(task.memory()[task.program().variable("x").orElseThrow().slot()])).isEqualTo(Double.valueOf(expected));
        }
    }

    /** ULINT against exact whole numbers modulo 2^64. */
    @Property(tries = 300)
    void unsigned(@ForAll long a, @ForAll long b) {
        BigInteger x = new BigInteger(Long.toUnsignedString(a));
        BigInteger y = new BigInteger(Long.toUnsignedString(b));
        Resource task = run("a : ULINT := " + x + "; b : ULINT := " + y + "; sum, part, rest, low : ULINT; less : BOOL;",
                "sum := a + b; part := a / (b / 2 + 1); rest := a MOD (b / 2 + 1); low := MIN(a, b); less := a < b;");
        BigInteger divisor = y.shiftRight(1).add(BigInteger.ONE);
        assertThat(value(task, "sum")).isEqualTo(x.add(y).mod(BigInteger.ONE.shiftLeft(64)).toString());
        assertThat(value(task, "part")).isEqualTo(x.divide(divisor).toString());
        assertThat(value(task, "rest")).isEqualTo(x.mod(divisor).toString());
        assertThat(value(task, "low")).isEqualTo(x.min(y).toString());
        assertThat(value(task, "less")).isEqualTo(x.compareTo(y) < 0 ? "TRUE" : "FALSE");
    }
}
