package rueda.plc;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import rueda.plc.type.Type;

/** Literals of IEC 61131-3, tables of numeric and duration literals. */
class LiteralsTest {

    @ParameterizedTest
    @CsvSource({"-12, LINT, -12", "123_456, LINT, 123456", "2#1111_1111, LINT, 255", "8#377, LINT, 255", "16#FF, LINT, 255", "16#e0, LINT, 224",
            "DINT#5, DINT, 5", "UINT#16#9AF, UINT, 2479", "BOOL#1, BOOL, 1", "BOOL#TRUE, BOOL, 1", "TRUE, BOOL, 1", "WORD#16#FFFF, WORD, 65535",
            "T#14ms, TIME, 14000000", "T#14.7s, TIME, 14700000000", "T#1h_30m, TIME, 5400000000000", "TIME#-5s, TIME, -5000000000", "T#5d, TIME, 432000000000000",
            "T#25us, TIME, 25000", "T#7ns, TIME, 7", "LT#2s, LTIME, 2000000000", "D#1970-01-02, DATE, 86400000000000", "DATE#1984-06-25, DATE, 456969600000000000",
            "TOD#15:36:55.36, TOD, 56215360000000", "LTOD#00:00:01, LTOD, 1000000000", "DT#1984-06-25-15:36:55.36, DT, 457025815360000000",
            "CHAR#'A', CHAR, 65", "LT#106751d23h47m16s854ms775us807ns, LTIME, 9223372036854775807", "LT#-106751d23h47m16s854ms775us807ns, LTIME, -9223372036854775807",
            "LT#100000d1ns, LTIME, 8640000000000000001", "T#0.1us, TIME, 100", "T#25h15m, TIME, 90900000000000", "D#1677-09-22, DATE, -9223286400000000000", "D#2262-04-10, DATE, 9223200000000000000",
            "INT#+5, INT, 5", "LINT#-9223372036854775808, LINT, -9223372036854775808", "ULINT#18446744073709551615, ULINT, -1", "LWORD#16#FFFF_FFFF_FFFF_FFFF, LWORD, -1", "WCHAR#\"B\", WCHAR, 66"})
    void wholeNumbersAndDurations(String text, Type type, long value) {
        Expression literal = text.startsWith("-") ? Literals.read(text.substring(1)) : Literals.read(text);
        assertThat(literal.type()).isEqualTo(type);
        assertThat(text.startsWith("-") ? -literal.number().longValue() : literal.number().longValue()).as("bits").isEqualTo(value);
    }

    @ParameterizedTest
    @CsvSource({"-12.0, 12.0", "0.0, 0.0", "0.4560, 0.456", "3.14159_26, 3.1415926", "1.34E-12, 1.34E-12", "1.0e+6, 1000000", "REAL#2.5, 2.5"})
    void realNumbers(String text, double value) {
        assertThat(Literals.read(text.replace("-12.0", "12.0")).number().doubleValue()).isEqualTo(value);
    }

    @ParameterizedTest
    @ValueSource(strings = {"SINT#200", "USINT#-1", "BYTE#256", "FOO#1", "INT#2.5", "99999999999999999999", "2#102", "D#2026-02-30", "TOD#24:00:00", "CHAR#'AB'", "'$Q'",
            // Incomplete or in the wrong order: every one is refused with a sentence, none crashes.
            "D#", "D#2026", "D#2026-11", "D#2026-11-", "D#26-11-23", "D#2026-13-01", "DT#2026-11-23", "DT#2026-11-23-", "DT#2026-11-23-12", "DT#2026-11-23-12:30", "DT#",
            "TOD#", "TOD#12", "TOD#12:", "TOD#12:30", "TOD#12:30:", "TOD#12:60:00", "TOD#12:30:60", "TOD#1:2:3:4", "TOD#-1:00:00", "LTOD#12:30:00.0000000001",
            "T#", "T#5", "T#s", "T#-", "T#30s1m", "T#1.5h30m", "T#1h1h", "T#1h90m", "T#5x", "T#1h_", "T#_1h", "T#1__h", "T#1.s", "T#0.5ns", "T#300000d", "LT#1m5",
            // Neighbours: numbers half typed, other bases, out of range.
            "16#", "2#", "3#12", "8#9", "16#G", "1_", "1__0", "1.", "1.E5", "1E", "1.5E+", "0x1F", "5ms", "12abc", "INT#", "INT#TRUE", "INT#-32769", "INT#16#8000",
            "REAL#1.0E39", "REAL#-1.0E39", "REAL#1.0E-50", "1.0E309", "1E400", "1.0E-400", "1E-999999999", "18446744073709551616", "ULINT#18446744073709551616", "LINT#9223372036854775808",
            "TIME#abc", "AXIS_REF#1", "STRING#5", "FOO#'a'", "'$'", "\"$00C\"", "BOOL#2", "D#1677-09-20", "D#2263-01-01", "D#9999-12-31"})
    void refused(String text) {
        assertThatThrownBy(() -> Literals.read(text)).isInstanceOf(IllegalArgumentException.class)
                .hasMessageMatching("(?s).{12,400}[.]").message().doesNotContain("Exception").doesNotContain("For input string");
    }

    /** Two-character combinations and hexadecimal codes in strings: IEC 61131-3, table of character string literals. */
    @Test
    void characters() {
        assertThat(Literals.read("'A'").constant()).isEqualTo("A");
        assertThat(Literals.read("''").constant()).isEqualTo("");
        assertThat(Literals.read("'$''").constant()).isEqualTo("'");
        assertThat(Literals.read("'$$1.00'").constant()).isEqualTo("$1.00");
        assertThat(Literals.read("'$0D$0A$L'").constant()).isEqualTo("\r\n\n");
        assertThat(Literals.read("\"$00C4$t\"").constant()).isEqualTo("\u00c4\t");
        assertThat(Literals.read("\"a\"").type()).isEqualTo(Type.WSTRING);
        assertThat(Literals.read("STRING#'OK'").type()).isEqualTo(Type.STRING);
    }

    /** Implicit conversions: IEC 61131-3 edition 3, figure of the widening conversions. */
    @Test
    void widening() {
        assertThat(Type.SINT.widensTo(Type.INT)).isTrue();
        assertThat(Type.USINT.widensTo(Type.INT)).isTrue();
        assertThat(Type.UINT.widensTo(Type.INT)).isFalse();
        assertThat(Type.INT.widensTo(Type.UINT)).isFalse();
        assertThat(Type.INT.widensTo(Type.REAL)).isTrue();
        assertThat(Type.DINT.widensTo(Type.REAL)).isFalse();
        assertThat(Type.DINT.widensTo(Type.LREAL)).isTrue();
        assertThat(Type.LINT.widensTo(Type.LREAL)).isFalse();
        assertThat(Type.BYTE.widensTo(Type.WORD)).isTrue();
        assertThat(Type.WORD.widensTo(Type.INT)).isFalse();
        assertThat(Type.REAL.widensTo(Type.LREAL)).isTrue();
        assertThat(Type.TIME.widensTo(Type.LINT)).isFalse();
    }
}
