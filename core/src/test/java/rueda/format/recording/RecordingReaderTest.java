package rueda.format.recording;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.UnaryOperator;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;
import rueda.bench.Bench;
import rueda.bench.Signal;
import rueda.format.UnreadableFile;
import rueda.format.recording.RecordingLayout.ColumnUse;
import rueda.format.recording.RecordingLayout.Encoding;
import rueda.format.recording.RecordingLayout.Separator;
import rueda.format.recording.RecordingLayout.TimeSource;
import rueda.format.recording.RecordingLayout.TimeSource.Form;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.quantity.InvalidEntry;

/** Files of several manners of writing, all invented. */
class RecordingReaderTest {

    private record Sample(long nanos, double[] values) {
    }

    private static List<Sample> read(byte[] file, RecordingLayout layout) {
        List<Sample> samples = new ArrayList<>();
        try {
            RecordingReader.read(new ByteArrayInputStream(file), layout, (nanos, values) -> samples.add(new Sample(nanos, values.clone())));
        } catch (IOException impossible) {
            throw new AssertionError(impossible);
        }
        return samples;
    }

    private static List<Sample> guessed(String text) {
        byte[] file = text.getBytes(StandardCharsets.UTF_8);
        return read(file, LayoutGuess.guess(file));
    }

    private static RecordingLayout layout(String text) {
        return LayoutGuess.guess(text.getBytes(StandardCharsets.UTF_8));
    }

    @Test
    void commasHeadingsAndUnitsInBrackets() {
        String text = "time [s],Shuttle.position [mm],Shuttle.torque [N·m]\r\n0.001,12.5,0.3\r\n0.002,12.75,-0.31\r\n";
        RecordingLayout layout = layout(text);
        assertThat(layout.time()).isEqualTo(new TimeSource(Form.SECONDS, 0, 0.001, false));
        assertThat(layout.columns()).containsExactly(new ColumnUse(1, "Shuttle.position", "mm", 1, 0), new ColumnUse(2, "Shuttle.torque", "N·m", 1, 0));
        List<Sample> samples = guessed(text);
        assertThat(samples).extracting(Sample::nanos).containsExactly(1_000_000L, 2_000_000L);
        assertThat(samples.get(1).values()).containsExactly(12.75, -0.31);
    }

    @Test
    void decimalCommasWordsBeforeTheHeadingsAndALineOfUnits() {
        String text = "Aufzeichnung;Achse 1\nDatum;14.03.2026\n\nZeit;Istposition;Drehmoment\nms;mm;%\n0;100,5;12\n0,25;100,75;-3,5\n0,5;101;\n";
        RecordingLayout layout = layout(text);
        assertThat(layout.separator()).isEqualTo(Separator.SEMICOLON);
        assertThat(layout.decimalComma()).isTrue();
        assertThat(layout.headings()).isEqualTo(4);
        assertThat(layout.units()).isEqualTo(5);
        assertThat(layout.begins()).isEqualTo(6);
        List<Sample> samples = guessed(text);
        assertThat(samples).extracting(Sample::nanos).containsExactly(0L, 250_000L, 500_000L);
        assertThat(samples.get(1).values()).containsExactly(100.75, -3.5);
        assertThat(samples.get(2).values()[1]).as("an empty cell").isNaN();
    }

    @Test
    void tabsWithoutHeadings() {
        List<Sample> samples = guessed("0\t1.5\t2\n1e-3\t1.6\t3\n2e-3\t1.7\t4\n");
        assertThat(samples).extracting(Sample::nanos).containsExactly(0L, 1_000_000L, 2_000_000L);
        assertThat(samples.get(2).values()).containsExactly(1.7, 4);
    }

    @Test
    void columnsSeparatedBySpacesOfAnyWidthUnderACommentedHeading() {
        RecordingLayout layout = layout("# t  speed   torque\n  0.0    10    1\n  0.5   -11    2\n 10.0   112    3\n");
        assertThat(layout.separator()).isEqualTo(Separator.SPACES);
        assertThat(layout.columns()).extracting(ColumnUse::signal).containsExactly("speed", "torque");
    }

    @Test
    void timeOfDayPastMidnight() {
        List<Sample> samples = guessed("Time,Value\n23:59:59.998,1\n23:59:59.999,2\n00:00:00.001,3\n");
        assertThat(samples).extracting(Sample::nanos).containsExactly(0L, 1_000_000L, 3_000_000L);
    }

    @ParameterizedTest
    @ValueSource(strings = {"2026-03-14 13:45:07.250,1\n2026-03-14 13:45:07.500,2\n", "2026-03-14T13:45:07.250Z,1\n2026-03-14T13:45:07.500Z,2\n", "14.03.2026 13:45:07.250,1\n14.03.2026 13:45:07.500,2\n"})
    void dates(String rows) {
        assertThat(guessed("Date,Value\n" + rows)).extracting(Sample::nanos).containsExactly(0L, 250_000_000L);
    }

    @Test
    void secondsSince1970KeepTheirNanoseconds() {
        List<Sample> samples = guessed("timestamp,v\n1773496000.123456789,1\n1773496000.123456790,2\n");
        assertThat(samples).extracting(Sample::nanos).containsExactly(0L, 1L);
    }

    @Test
    void withoutTimeARateIsGiven() {
        String text = "position,torque\n5,1\n5,2\n5,1\n";
        RecordingLayout layout = layout(text);
        assertThat(layout.time().form()).isEqualTo(Form.RATE);
        assertThat(layout.columns()).hasSize(2);
        List<Sample> samples = read(text.getBytes(StandardCharsets.UTF_8), layout.withTime(new TimeSource(Form.RATE, 0, 0.00025, false)));
        assertThat(samples).extracting(Sample::nanos).containsExactly(0L, 250_000L, 500_000L);
    }

    @Test
    void onAndOffInWordsAndWhatIsNoNumber() {
        List<Sample> samples = guessed("t,on,v\n0,TRUE,NaN\n1,false,1e3\n2,On,\u22125\n");
        assertThat(samples.get(0).values()[0]).isEqualTo(1);
        assertThat(samples.get(0).values()[1]).isNaN();
        assertThat(samples.get(1).values()).containsExactly(0, 1000);
        assertThat(samples.get(2).values()).containsExactly(1, -5);
    }

    @Test
    void quotationMarksAroundNumbersWithAComma() {
        List<Sample> samples = guessed("\"t\";\"v, left\"\n\"0,1\";\"2,5\"\n\"0,2\";\"3,5\"\n");
        assertThat(samples.get(1).values()).containsExactly(3.5);
    }

    @Test
    void aSeparatorAtTheEndOfEveryLine() {
        RecordingLayout layout = layout("t;v;\n0;1;\n1;2;\n");
        assertThat(layout.columns()).extracting(ColumnUse::signal).containsExactly("v");
    }

    @Test
    void anEmptyLastCellIsNoValueAndTheColumnStays() {
        List<Sample> samples = guessed("sampled by hand\nA|B\n0|1,5\n1|1,25\n2|\n3|1\n");
        assertThat(samples).hasSize(4);
        assertThat(samples.get(2).values()).hasSize(1);
        assertThat(samples.get(2).values()[0]).isNaN();
        assertThat(layout("a;b\n1;\n2;5\n3;\n").columns()).extracting(ColumnUse::signal).contains("b");
        assertThat(layout("t;v\n0;1;\n1;2;\n").columns()).extracting(ColumnUse::signal).containsExactly("v");
    }

    @ParameterizedTest
    @EnumSource(Encoding.class)
    void encodings(Encoding encoding) {
        String text = "Zeit [s];Gr\u00F6\u00DFe [\u00B0]\n0;1\n1;2\n";
        Charset charset = encoding.charset();
        for (UnaryOperator<String> mark : List.<UnaryOperator<String>>of(s -> s, s -> encoding == Encoding.WESTERN ? s : "\uFEFF" + s)) {
            byte[] file = mark.apply(text).getBytes(charset);
            RecordingLayout layout = LayoutGuess.guess(file);
            assertThat(layout.encoding()).isEqualTo(encoding);
            assertThat(layout.columns()).containsExactly(new ColumnUse(1, "Gr\u00F6\u00DFe", "\u00B0", 1, 0));
            assertThat(read(file, layout)).hasSize(2);
        }
    }

    @Test
    void aWordAmongTheNumbersIsRefusedWithLineAndColumn() {
        byte[] file = "t,speed\n0,1\n1,stopped\n2,3\n".getBytes(StandardCharsets.UTF_8);
        RecordingLayout layout = new RecordingLayout(Encoding.UTF_8, Separator.COMMA, false, 1, 0, 2, new TimeSource(Form.SECONDS, 0, 1, false), List.of(new ColumnUse(1, "speed", "", 1, 0)));
        assertThatThrownBy(() -> read(file, layout)).isInstanceOf(UnreadableFile.class).hasMessageContaining("line 3, speed").hasMessageContaining("stopped");
    }

    @Test
    void timeThatFallsIsRefused() {
        assertThatThrownBy(() -> guessed("t,v\n0,1\n2,1\n3,1\n1,1\n4,1\n")).isInstanceOf(UnreadableFile.class).hasMessageContaining("line 5, time");
    }

    @Test
    void halfALastLineIsLeftOut() throws IOException {
        byte[] file = "t,v\n0,1\n1,2\n2,-".getBytes(StandardCharsets.UTF_8);
        byte[] cut = "t,v\n0,1\n1,2\n2x".getBytes(StandardCharsets.UTF_8);
        assertThat(read(file, LayoutGuess.guess(file))).hasSize(3);
        RecordingLayout layout = LayoutGuess.guess(cut);
        List<Long> times = new ArrayList<>();
        RecordingReader.Taken taken = RecordingReader.read(new ByteArrayInputStream(cut), layout, (nanos, values) -> times.add(nanos));
        assertThat(taken.rows()).isEqualTo(2);
        assertThat(taken.remarks()).singleElement().asString().contains("line 4");
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "\n\n", "only words\nand more words\n", "{\"a\": true}"})
    void whatHasNoNumbersIsRefused(String text) {
        assertThatThrownBy(() -> guessed(text)).isInstanceOf(UnreadableFile.class);
    }

    @Test
    void aLayoutThatCannotBeNamesItsField() {
        RecordingLayout good = layout("t,v\n0,1\n1,2\n");
        byte[] file = "t,v\n0,1\n1,2\n".getBytes(StandardCharsets.UTF_8);
        assertThatThrownBy(() -> read(file, good.withColumns(List.of()))).isInstanceOfSatisfying(InvalidEntry.class, e -> assertThat(e.field()).isEqualTo("columns"));
        assertThatThrownBy(() -> read(file, good.withColumns(List.of(new ColumnUse(1, "v", "", 0, 0))))).isInstanceOfSatisfying(InvalidEntry.class, e -> assertThat(e.field()).isEqualTo("columns/0/scale"));
        assertThatThrownBy(() -> read(file, good.withColumns(List.of(new ColumnUse(1, "v", "", 1, 0), new ColumnUse(0, "V", "", 1, 0))))).isInstanceOfSatisfying(InvalidEntry.class, e -> assertThat(e.field()).isEqualTo("columns/1/signal"));
        assertThatThrownBy(() -> read(file, good.withTime(new TimeSource(Form.RATE, 0, 0, false)))).isInstanceOfSatisfying(InvalidEntry.class, e -> assertThat(e.field()).isEqualTo("time/interval"));
    }

    @Property(tries = 300)
    void anyNumbersInAnyMannerComeBack(@ForAll @Size(min = 2, max = 20) List<@DoubleRange(min = -1e9, max = 1e9) Double> numbers, @ForAll Separator separator, @ForAll boolean comma) {
        if (separator == Separator.COMMA && comma) {
            return;
        }
        StringBuilder text = new StringBuilder("t" + separator.character() + "v\n");
        for (int i = 0; i < numbers.size(); i++) {
            String line = i + "." + i % 10 + separator.character() + numbers.get(i);
            text.append(comma ? line.replace('.', ',') : line).append('\n');
        }
        List<Sample> samples = guessed(text.toString());
        assertThat(samples).extracting(s -> s.values()[0]).isEqualTo(numbers);
    }

    @Property
    void aNumberIsReadAsTheNearestDouble(@ForAll @DoubleRange(min = -1e6, max = 1e6) double value) {
        for (String text : List.of(Double.toString(value), String.format(Locale.ROOT, "%.6f", value), String.format(Locale.ROOT, "%.17e", value))) {
            assertThat(Cells.number(text, false)).isEqualTo(Double.parseDouble(text));
        }
    }

    @Test
    void headingsNameSignalsOfTheMachine() {
        Machine machine = DemoMachine.create();
        List<Signal> signals = new Bench(machine, 1).recording().signals();
        RecordingLayout layout = Assignments.suggested(layout("Time [ms],Shuttle set position [m],SHUTTLE_ActPos [m],Shuttle speed [m/s],Shuttle torque [%],Lift Pos,Room temperature [°C]\n0,1,1,0,0,3,21\n1,1,1,0,0,3,21\n"), machine, signals);
        assertThat(layout.columns()).containsExactly(new ColumnUse(1, "Shuttle.commandedPosition", "mm", 1000, 0), new ColumnUse(2, "Shuttle.position", "mm", 1000, 0),
                new ColumnUse(3, "Shuttle.speed", "mm/s", 1000, 0), new ColumnUse(4, "Shuttle.torque", "N·m", 0.0095, 0), new ColumnUse(5, "Lift.position", "mm", 1, 0), new ColumnUse(6, "Room temperature", "°C", 1, 0));
    }
}
