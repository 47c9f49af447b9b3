package rueda.benchmarks;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import rueda.advice.ConnectAdvice;
import rueda.advice.MapAdvice;
import rueda.bus.BusFamily;
import rueda.bus.CycleTimes;
import rueda.bus.ProcessDataLayout;
import rueda.bus.description.DeviceDescription;
import rueda.format.description.Descriptions;
import rueda.format.description.ShippedDevices;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.Station.Entry;

/** Layouts of a large machine, packing of a cycle, reading of a large description. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Warmup(iterations = 5, time = 1)
@Measurement(iterations = 10, time = 1)
@Fork(value = 1, jvmArgsAppend = "-Xmx300m")
public class BusBenchmark {

    private static final int STATIONS = 128;
    private static final int DESCRIPTION_BYTES = 10_000_000;

    private Machine machine;
    private List<DeviceDescription> library;
    private List<ProcessDataLayout> layouts;
    private byte[][] images;
    private byte[][] copies;
    private long[] values;
    private byte[] description;

    @Setup
    public void make() {
        List<Axis> axes = new ArrayList<>();
        Machine demo = DemoMachine.create();
        for (int i = 0; i < STATIONS; i++) {
            axes.add(DemoMachine.shuttle().withName("Axis" + i).withStation(BusFamily.of(demo.bus()).usual("Axis" + i, i + 1)));
        }
        machine = demo.withAxes(axes);
        library = ShippedDevices.all();
        layouts = new ArrayList<>();
        for (Axis axis : axes) {
            layouts.add(BusFamily.layout(demo.bus(), axis.station().outputs()));
            layouts.add(BusFamily.layout(demo.bus(), axis.station().inputs()));
        }
        images = layouts.stream().map(l -> new byte[l.bytes()]).toArray(byte[][]::new);
        copies = layouts.stream().map(l -> new byte[l.bytes()]).toArray(byte[][]::new);
        values = new long[16];
        java.util.Arrays.setAll(values, i -> i * 0x0102_0304_0506L);
        description = large();
    }

    /** The shipped description with as many revisions as make 10 MB. */
    private static byte[] large() {
        String text = new String(ShippedDevices.file("wheelwright-w1.esi.xml"), StandardCharsets.UTF_8);
        int from = text.indexOf("      <Device ");
        int to = text.indexOf("</Device>") + "</Device>\n".length();
        StringBuilder large = new StringBuilder(text.substring(0, from));
        String device = text.substring(from, to);
        for (int revision = 1; large.length() < DESCRIPTION_BYTES; revision++) {
            large.append(device.replace("#x00010001\" RevisionNo=\"#x00010001", String.format("#x00010001\" RevisionNo=\"#x%08X", revision)));
        }
        return large.append("    </Devices>\n  </Descriptions>\n</EtherCATInfo>\n").toString().getBytes(StandardCharsets.UTF_8);
    }

    /** Everything that Connect and Map say of 128 stations. */
    @Benchmark
    public int layOutAndCheck() {
        CycleTimes times = BusFamily.of(machine.bus()).times(machine);
        int findings = 0;
        for (int i = 0; i < STATIONS; i++) {
            findings += MapAdvice.of(machine, machine.axes().get(i), "/axes/" + i, times).findings().size();
            findings += ConnectAdvice.of(machine, i, library).findings().size();
        }
        return findings;
    }

    @Benchmark
    public byte[][] pack() {
        for (int l = 0; l < images.length; l++) {
            ProcessDataLayout layout = layouts.get(l);
            List<Entry> entries = layout.entries();
            for (int e = 0; e < entries.size(); e++) {
                layout.write(images[l], e, values[e]);
            }
        }
        return images;
    }

    @Benchmark
    public byte[][] copy() {
        for (int l = 0; l < images.length; l++) {
            System.arraycopy(images[l], 0, copies[l], 0, images[l].length);
        }
        return copies;
    }

    @Benchmark
    public int readLargeDescription() {
        return Descriptions.read(description).value().size();
    }
}
