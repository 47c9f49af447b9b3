package rueda.format;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rueda.format.tags.TagCsv;
import rueda.plc.ProcessAddress;
import rueda.plc.TagRow;
import rueda.plc.type.Type;

class SpreadsheetCellsTest {

    @ParameterizedTest
    @ValueSource(strings = {"=1+1", "+cmd|' /C calc'!A0", "-2+3+cmd", "@SUM(A1)", "\t=1", "=HYPERLINK(\"http://x\")"})
    void whatASpreadsheetWouldCalculateIsText(String text) {
        assertThat(SpreadsheetCells.written(text)).startsWith("'");
    }

    @ParameterizedTest
    @ValueSource(strings = {"-20.0", "+5", "-1.5E-7", "0", "mm/s", "°"})
    void numbersAndPlainTextStay(String text) {
        assertThat(SpreadsheetCells.written(text)).isEqualTo(text);
    }

    @Property
    void everyTextComesBack(@ForAll String text) {
        assertThat(SpreadsheetCells.read(SpreadsheetCells.written(text))).isEqualTo(text);
    }

    @Test
    void theTagTableIsHarmlessAndComesBack() {
        TagRow row = new TagRow("Shuttle.Position", Type.DINT, true, 0, "=1+1");
        String csv = TagCsv.write(List.of(row));
        assertThat(csv).contains(",'=1+1");
        byte[] bytes = csv.getBytes(StandardCharsets.UTF_8);
        assertThat(TagCsv.read(bytes, TagCsv.preview(bytes).suggested(), ProcessAddress.Counts.BYTES)).extracting(TagRow::comment).containsExactly("=1+1");
    }
}
