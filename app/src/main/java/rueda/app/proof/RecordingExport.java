package rueda.app.proof;

import java.io.BufferedWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.Writer;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import rueda.app.machine.MachineJson;
import rueda.bench.Signal;

/**
 * A recording as other programs read it. CSV as RFC 4180 has it: a line with names and units in brackets, then one for each sample, the first column its time in s,
 * with a point for the decimals. JSON: the same by columns.
 *
 * @param columns one for each signal, all of one length
 */
record RecordingExport(String proof, String circumstances, long revision, Instant ranAt, long cycleNanos, List<Signal> signals, List<double[]> columns) {

    /** As JSON. @param interval s from one sample to the next; the first is at one interval */
    record Document(String proof, String circumstances, long revision, Instant ranAt, double interval, List<Column> signals) {
        record Column(String name, String unit, double[] values) {
        }
    }

    private int samples() {
        return columns.get(0).length;
    }

    void csv(OutputStream out) throws IOException {
        try (Writer writer = new BufferedWriter(new OutputStreamWriter(out, StandardCharsets.UTF_8)); CSVPrinter csv = new CSVPrinter(writer, CSVFormat.RFC4180)) {
            csv.print("time [s]");
            for (Signal signal : signals) {
                csv.print(signal.unit().isEmpty() ? signal.name() : signal.name() + " [" + signal.unit() + "]");
            }
            csv.println();
            for (int k = 0; k < samples(); k++) {
                csv.print(BigDecimal.valueOf((k + 1) * cycleNanos, 9).stripTrailingZeros().toPlainString());
                for (double[] column : columns) {
                    csv.print(number(column[k]));
                }
                csv.println();
            }
        }
    }

    /** The shortest that reads back as the same number. */
    private static String number(double value) {
        return value == Math.rint(value) && Math.abs(value) < 1e15 ? Long.toString((long) value) : Double.toString(value);
    }

    void json(OutputStream out) throws IOException {
        List<Document.Column> written = new java.util.ArrayList<>();
        for (int i = 0; i < signals.size(); i++) {
            written.add(new Document.Column(signals.get(i).name(), signals.get(i).unit(), columns.get(i)));
        }
        out.write(MachineJson.write(new Document(proof, circumstances, revision, ranAt, cycleNanos * 1e-9, written)).getBytes(StandardCharsets.UTF_8));
    }
}
