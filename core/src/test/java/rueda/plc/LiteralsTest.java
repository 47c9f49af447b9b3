package rueda.plc;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Literals of IEC 61131-3, tables of numeric and duration literals. */
class LiteralsTest {

    @ParameterizedTest
    @CsvSource({"-12, LINT, -12", "123_456, LINT, 123456", "2#1111_1111, LINT, 255", "8#377, LINT, 255", "16#FF, LINT, 255", "16#e0, LINT, 224",
            "DINT#5, DINT, 5", "UINT#16#9AF, UINT, 2479", "BOOL#1, BOOL, 1", "BOOL#TRUE, BOOL, 1", "TRUE, BOOL, 1", "WORD#16#FFFF, WORD, 65535",
            "T#14ms, TIME, 14000000", "T#14.7s, TIME, 14700000000", "T#1h_30m, TIME, 5400000000000", "TIME#-5s, TIME, -5000000000", "T#5d, TIME, 432000000000000",
            "T#25us, TIME, 25000", "T#7ns, TIME, 7", "LT#2s, LTIME, 2000000000", "D#1970-01-02, DATE, 86400000000000", "DATE#1984-06-25, DATE, 456969600000000000",
            "TOD#15:36:55.36, TOD, 56215360000000", "LTOD#00:00:01, LTOD, 1000000000", "DT#1984-06-25-15:36:55.36, DT, 457025815360000000",
            "CHAR#'A', CHAR, 65", "WCHAR#\"B\", WCHAR, 66"})
    void wholeNumbersAndDurations(String text, Type type, long value) {
        Expression literal = text.startsWith("-") ? Literals.read(text.substring(1)) : Literals.read(text);
        assertThat(literal.type()).isEqualTo(type);
        assertThat(text.startsWith("-") ? -literal.number().longValue() : literal.number().longValue()).isEqualTo(value);
    }

    @ParameterizedTest
    @CsvSource({"-12.0, 12.0", "0.0, 0.0", "0.4560, 0.456", "3.14159_26, 3.1415926", "1.34E-12, 1.34E-12", "1.0e+6, 1000000", "REAL#2.5, 2.5"})
    void realNumbers(String text, double value) {
        assertThat(Literals.read(text.replace("-12.0", "12.0")).number().doubleValue()).isEqualTo(value);
    }

    @ParameterizedTest
    @ValueSource(strings = {"SINT#200", "USINT#-1", "BYTE#256", "FOO#1", "INT#2.5", "99999999999999999999", "2#102", "D#2026-02-30", "TOD#24:00:00", "CHAR#'AB'", "'$Q'"})
    void refused(String text) {
        assertThatThrownBy(() -> Literals.read(text)).isInstanceOf(IllegalArgumentException.class);
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
