package rueda.format;

import static org.assertj.core.api.Assertions.assertThat;

import java.lang.management.ManagementFactory;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.function.Consumer;
import java.util.function.IntFunction;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import rueda.format.description.Descriptions;
import rueda.format.description.ShippedDevices;
import rueda.format.tags.PlcOpenXml;
import rueda.format.tags.TagCsv;
import rueda.format.tags.TagDeclarationsReader;
import rueda.plc.ProcessAddress.Counts;

/**
 * What reading a file costs, as ratios: a changed file never costs much more than the sound one, and twice the file costs twice as much.
 * Counted are the bytes the reading thread allocates and its own processor time, which other programs on the machine do not change.
 */
class ReadersCostTest {

    /** By hand: -Drueda.mutations=2000. */
    private static final int MUTATIONS = Integer.getInteger("rueda.mutations", 150);
    /** Times that are shorter than this are all the same, ns. */
    private static final long FLOOR_NANOS = 5_000_000;
    private static final long FLOOR_BYTES = 2 << 20;
    private static final com.sun.management.ThreadMXBean THREADS = (com.sun.management.ThreadMXBean) ManagementFactory.getThreadMXBean();

    private record Reader(String name, byte[] sound, Consumer<byte[]> read) {
        @Override
        public String toString() {
            return name;
        }
    }

    private record Cost(long bytes, long nanos) {
    }

    private static Consumer<byte[]> csv() {
        return file -> TagCsv.read(file, TagCsv.preview(file).suggested(), Counts.BYTES);
    }

    private static byte[] csv(int rows) {
        StringBuilder text = new StringBuilder("Name;Type;Address;Comment\n");
        for (int i = 0; i < rows; i++) {
            text.append("Axis").append(i).append(".Cmd.Position;DINT;%QD").append(4 * i).append(";a \"quoted\" word\n");
        }
        return text.toString().getBytes(StandardCharsets.UTF_8);
    }

    private static byte[] declarations(int rows) {
        StringBuilder text = new StringBuilder("TYPE Cmd : STRUCT Control : WORD; Position : DINT; Table : ARRAY[1..4] OF INT; END_STRUCT; END_TYPE\nVAR_GLOBAL\n");
        for (int i = 0; i < rows; i++) {
            text.append("  (* number ").append(i).append(" *) Axis").append(i).append(" AT %QB").append(20 * i).append(" : Cmd;\n");
        }
        return text.append("END_VAR\n").toString().getBytes(StandardCharsets.UTF_8);
    }

    private static byte[] xml(int rows) {
        StringBuilder text = new StringBuilder("<?xml version=\"1.0\"?><project xmlns=\"http://www.plcopen.org/xml/tc6_0201\"><instances><configurations><configuration name=\"c\"><resource name=\"r\"><globalVars>");
        for (int i = 0; i < rows; i++) {
            text.append("<variable name=\"Axis").append(i).append("\" address=\"%QD").append(4 * i).append("\"><type><DINT/></type></variable>\n");
        }
        return text.append("</globalVars></resource></configuration></configurations></instances></project>").toString().getBytes(StandardCharsets.UTF_8);
    }

    private static byte[] dataSheet(int objects) {
        StringBuilder text = new StringBuilder("[DeviceInfo]\nProductName=X\n[ManufacturerObjects]\nSupportedObjects=" + objects + "\n");
        for (int i = 0; i < objects; i++) {
            text.append(i + 1).append("=0x").append(Integer.toHexString(0x2000 + i)).append('\n');
        }
        for (int i = 0; i < objects; i++) {
            text.append(String.format("[%04X]%nParameterName=Value %d%nDataType=0x0007%nAccessType=rw%nDefaultValue=%d%n", 0x2000 + i, i, i));
        }
        return text.toString().getBytes(StandardCharsets.UTF_8);
    }

    private static List<Reader> readers() {
        java.util.stream.Stream<Reader> descriptions = ShippedDevices.files().stream().map(name -> new Reader(name, ShippedDevices.file(name), Descriptions::read));
        return java.util.stream.Stream.concat(descriptions, java.util.stream.Stream.of(new Reader("tags.csv", csv(500), csv()),
                new Reader("tags.st", declarations(400), f -> TagDeclarationsReader.read(f, 4, Counts.BYTES)), new Reader("tags.xml", xml(300), f -> PlcOpenXml.read(f, 4, Counts.BYTES)))).toList();
    }

    private static Cost cost(Reader reader, byte[] file) {
        long thread = Thread.currentThread().getId();
        long bytes = THREADS.getThreadAllocatedBytes(thread);
        long nanos = THREADS.getCurrentThreadCpuTime();
        try {
            reader.read().accept(file);
        } catch (UnreadableFile refused) {
            assertThat(refused.place()).isNotBlank();
        }
        return new Cost(THREADS.getThreadAllocatedBytes(thread) - bytes, THREADS.getCurrentThreadCpuTime() - nanos);
    }

    private static byte[] mutated(byte[] sound, Random random) {
        byte[] file = sound.clone();
        int kind = random.nextInt(5);
        for (int i = 0; i < 1 + random.nextInt(8); i++) {
            int at = random.nextInt(file.length);
            int from = random.nextInt(file.length);
            int length = Math.min(Math.min(file.length - from, file.length - at), 1 + random.nextInt(400));
            switch (kind) {
                case 0 -> file[at] = (byte) random.nextInt(256);
                case 1 -> file = Arrays.copyOf(file, 1 + random.nextInt(file.length));
                case 2 -> System.arraycopy(file.clone(), from, file, at, length);
                /* one character over and over: brackets, quotation marks, commas, digits */
                case 3 -> Arrays.fill(file, at, at + length, (byte) "([{<\"'*/,;=.0-&$\\\n".charAt(random.nextInt(18)));
                default -> {
                    byte[] swapped = new byte[file.length];
                    System.arraycopy(file, at, swapped, 0, file.length - at);
                    System.arraycopy(file, 0, swapped, file.length - at, at);
                    file = swapped;
                }
            }
        }
        return file;
    }

    @ParameterizedTest
    @MethodSource("readers")
    void aChangedFileCostsLittleMoreThanTheSoundOne(Reader reader) {
        for (int warm = 0; warm < 5; warm++) {
            cost(reader, reader.sound());
        }
        Cost sound = cost(reader, reader.sound());
        Random random = new Random(20261126);
        double worst = 0;
        for (int i = 0; i < MUTATIONS; i++) {
            byte[] file = mutated(reader.sound(), random);
            Cost cost = cost(reader, file);
            assertThat(cost.bytes()).as("%s, change %d: bytes allocated against %d", reader, i, sound.bytes()).isLessThan(4 * sound.bytes() + FLOOR_BYTES);
            double ratio = ratio(cost, sound);
            for (int again = 0; again < 3 && ratio > 10; again++) {
                /* the collector or the compiler may have worked on this thread: the least of several is the reader's own */
                ratio = Math.min(ratio, ratio(cost(reader, file), sound));
            }
            worst = Math.max(worst, ratio);
            assertThat(ratio).as("%s, change %d: processor time against %d ns", reader, i, sound.nanos()).isLessThan(10);
        }
        System.out.printf("%s: %d changes, at worst %.1f times the sound file%n", reader, MUTATIONS, worst);
    }

    private static double ratio(Cost cost, Cost sound) {
        return (cost.nanos() + FLOOR_NANOS) / (double) (sound.nanos() + FLOOR_NANOS);
    }

    @Test
    void twiceTheFileCostsTwiceAsMuch() {
        grows("tags.csv", ReadersCostTest::csv, csv());
        grows("tags.st", ReadersCostTest::declarations, f -> TagDeclarationsReader.read(f, 4, Counts.BYTES));
        grows("tags.xml", ReadersCostTest::xml, f -> PlcOpenXml.read(f, 4, Counts.BYTES));
        grows("sheet.eds", ReadersCostTest::dataSheet, Descriptions::read);
    }

    private static void grows(String name, IntFunction<byte[]> file, Consumer<byte[]> read) {
        byte[] one = file.apply(1000);
        byte[] four = file.apply(4000);
        Reader reader = new Reader(name, one, read);
        double size = four.length / (double) one.length;
        double bytes = Double.MAX_VALUE;
        double nanos = Double.MAX_VALUE;
        for (int i = 0; i < 6; i++) {
            Cost small = cost(reader, one);
            Cost large = cost(reader, four);
            bytes = Math.min(bytes, large.bytes() / (double) small.bytes());
            nanos = Math.min(nanos, (large.nanos() + FLOOR_NANOS) / (double) (small.nanos() + FLOOR_NANOS));
        }
        assertThat(bytes).as("%s, bytes allocated, file %.1f times as long", name, size).isLessThan(1.5 * size);
        assertThat(nanos).as("%s, processor time, file %.1f times as long", name, size).isLessThan(2 * size);
    }
}
