package rueda.format.pcapng;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import rueda.bench.Bench;
import rueda.bus.BusFamily;
import rueda.bus.CanOpen;
import rueda.bus.wire.BusCapture;
import rueda.machine.Bus.Family;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;

/** Frames of every family as an independent protocol analyser, tshark, reads them. */
class TrafficDecodedByTsharkTest {

    private static final int CYCLES = 12;
    private static final long START = 1_790_000_000_000_000_000L;

    @TempDir
    Path folder;

    private Bench bench;
    private Machine machine;

    /** The demo moves; the last bus cycles are kept. */
    private Path recorded(Family family) throws IOException {
        machine = BusFamily.moved(DemoMachine.create(), family);
        bench = new Bench(machine, 10);
        bench.run(2);
        BusCapture capture = new BusCapture(machine, CYCLES);
        bench.capture(capture);
        bench.run(2 * CYCLES * machine.bus().cycleMicros() * 1e-6);
        assertThat(capture.cycles()).isEqualTo(CYCLES);
        Path file = folder.resolve(family + ".pcapng");
        try (OutputStream out = Files.newOutputStream(file)) {
            PcapngWriter.write(capture, out, START);
        }
        return file;
    }

    private static List<String> tshark(Path file, String... options) throws IOException {
        List<String> command = new ArrayList<>(List.of("tshark", "-r", file.toString(), "-d", "can.subdissector,canopen"));
        command.addAll(List.of(options));
        Process process = new ProcessBuilder(command).redirectError(ProcessBuilder.Redirect.DISCARD).start();
        List<String> lines = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8).lines().toList();
        try {
            assertThat(process.waitFor(60, TimeUnit.SECONDS)).isTrue();
        } catch (InterruptedException stopped) {
            throw new IOException(stopped);
        }
        assertThat(process.exitValue()).isZero();
        return lines;
    }

    private static List<String[]> fields(Path file, String... names) throws IOException {
        List<String> options = new ArrayList<>(List.of("-T", "fields"));
        for (String name : names) {
            options.add("-e");
            options.add(name);
        }
        return tshark(file, options.toArray(String[]::new)).stream().map(line -> line.split("\t", -1)).toList();
    }

    private static String hex(byte[] bytes) {
        return HexFormat.of().formatHex(bytes);
    }

    @ParameterizedTest
    @EnumSource(Family.class)
    void noPacketIsMalformedAndTimesAreThoseOfTheBench(Family family) throws IOException {
        Path file = recorded(family);
        assertThat(tshark(file, "-o", "ip.check_checksum:TRUE", "-o", "udp.check_checksum:TRUE", "-o", "tcp.check_checksum:TRUE",
                "-Y", "_ws.malformed || ip.checksum.status == 0 || udp.checksum.status == 0 || tcp.checksum.status == 0 || tcp.analysis.lost_segment || tcp.analysis.retransmission")).isEmpty();
        List<String[]> rows = fields(file, "frame.time_epoch");
        assertThat(rows).hasSize(CYCLES * framesPerCycle(family));
        long firstCycle = Math.round(2e9) + CYCLES * machine.bus().cycleMicros() * 1000L;
        assertThat(rows.get(0)[0]).isEqualTo(String.format("%d.%09d", (START + firstCycle) / 1_000_000_000, (START + firstCycle) % 1_000_000_000));
    }

    private static int framesPerCycle(Family family) {
        return switch (family) {
            case ETHERCAT -> 4;
            case CANOPEN -> 1 + 5 * (2 + 3);
            default -> 5 * 2;
        };
    }

    /** ETG.1000.4: LRW is command 12; five stations that read and write add 15 to the working counter. FRMW is 14, BRD 7, each station adds one. */
    @Test
    void etherCat() throws IOException {
        List<String[]> all = fields(recorded(Family.ETHERCAT), "ecat.cmd", "ecat.lad", "ecat.idx", "ecat.cnt", "ecat.data", "ecat.ado", "ecat.adp");
        List<String[]> rows = all.stream().filter(r -> r[0].equals("0x0c")).toList();
        List<String[]> service = all.stream().filter(r -> !r[0].equals("0x0c")).toList();
        assertThat(service).hasSameSizeAs(rows);
        assertThat(service).extracting(r -> r[0] + " " + r[5]).containsOnly("0x0e,0x07 0x0910,0x0130");
        for (int i = 0; i < service.size(); i++) {
            assertThat(service.get(i)[3]).isEqualTo(i % 2 == 0 ? "0,0" : "5,5");
            assertThat(service.get(i)[6]).startsWith("0x03e9,");
        }
        assertThat(rows).extracting(r -> Long.decode(r[1])).containsOnly(0x10000L);
        for (int i = 0; i < rows.size(); i++) {
            assertThat(Long.decode(rows.get(i)[2])).isEqualTo(i / 2 * 2 + 1);
            assertThat(rows.get(i)[3]).isEqualTo(i % 2 == 0 ? "0" : "15");
        }
        StringBuilder last = new StringBuilder();
        for (int i = 0; i < 5; i++) {
            last.append(hex(bench.inputBytes(i)));
        }
        assertThat(rows.get(rows.size() - 1)[4].replace(":", "")).isEqualTo(last.toString());
        assertThat(rows.get(rows.size() - 2)[4].replace(":", "")).startsWith(hex(bench.outputBytes(0)));
    }

    /** CiA 301, predefined connection set; what is due at once passes by priority (ISO 11898-1). */
    @Test
    void canOpen() throws IOException {
        List<String[]> rows = fields(recorded(Family.CANOPEN), "can.id", "canopen.cob_id", "canopen.node_id", "canopen.pdo.data.bytes");
        int perCycle = framesPerCycle(Family.CANOPEN);
        for (int i = 0; i < rows.size(); i += perCycle) {
            assertThat(rows.get(i)[0]).isEqualTo(Integer.toString(CanOpen.SYNC));
            assertThat(rows.subList(i, i + perCycle)).extracting(r -> Integer.parseInt(r[0]))
                    .startsWith(0x80, 0x181, 0x182).contains(0x201, 0x301, 0x202, 0x302, 0x281, 0x381, 0x185, 0x285, 0x385).isSorted();
        }
        List<String[]> last = rows.subList(rows.size() - perCycle, rows.size());
        String shuttle = last.stream().filter(r -> r[0].equals("385") || r[0].equals("641") || r[0].equals("897")).map(r -> r[3].replace(":", "")).reduce("", String::concat);
        assertThat(shuttle).isEqualTo(hex(bench.inputBytes(0)));
    }

    /** IEC 61158-6-10: the cycle counter counts 31.25 µs, 32 a millisecond. */
    @Test
    void profinet() throws IOException {
        Path file = recorded(Family.PROFINET);
        List<String[]> rows = fields(file, "eth.src", "eth.dst", "vlan.priority", "pn_rt.frame_id", "pn_rt.cycle_counter", "pn_rt.ds", "pn_rt.transfer_status");
        assertThat(rows).allSatisfy(r -> {
            assertThat(r[2]).isEqualTo("6");
            assertThat(Long.decode(r[5])).isEqualTo(0x35);
            assertThat(Long.decode(r[6])).isZero();
        });
        for (int i = 0; i < rows.size(); i++) {
            assertThat(Long.decode(rows.get(i)[3])).isEqualTo(0xC000 + i % 10);
            assertThat(Integer.parseInt(rows.get(i)[4]) - Integer.parseInt(rows.get(0)[4])).isEqualTo(i / 10 * 32);
        }
        String json = String.join("", tshark(file, "-T", "json", "-x", "-J", "pn_io"));
        Matcher raw = Pattern.compile("\"pn_io_raw\":\\s*\\[\\s*\"([0-9a-f]+)\"").matcher(json);
        List<String> data = raw.results().map(r -> r.group(1)).toList();
        assertThat(data).hasSize(rows.size());
        assertThat(data.get(data.size() - 10)).startsWith(hex(bench.outputBytes(0)) + "8080");
        assertThat(data.get(data.size() - 9)).startsWith(hex(bench.inputBytes(0)) + "8080");
    }

    /** CIP volume 2, common packet format. */
    @Test
    void etherNetIp() throws IOException {
        List<String[]> rows = fields(recorded(Family.ETHERNET_IP), "ip.src", "ip.dst", "udp.dstport", "enip.cpf.sai.connid", "enip.cpf.sai.seq", "cipio.data");
        for (int i = 0; i < rows.size(); i++) {
            String station = "192.168.40." + (11 + i % 10 / 2);
            assertThat(rows.get(i)).startsWith(i % 2 == 0 ? "192.168.40.1" : station, i % 2 == 0 ? station : "192.168.40.1", "2222");
            assertThat(Long.decode(rows.get(i)[3])).isEqualTo(0x5200_0000L + i % 10);
            assertThat(rows.get(i)[4]).isEqualTo(Integer.toString(i / 10 + 1));
        }
        String count = String.format("%02x00", CYCLES);
        assertThat(rows.get(rows.size() - 10)[5].replace(":", "")).isEqualTo(count + "01000000" + hex(bench.outputBytes(0)));
        assertThat(rows.get(rows.size() - 9)[5].replace(":", "")).isEqualTo(count + hex(bench.inputBytes(0)));
    }

    /** Modbus application protocol V1.1b3, function 17h. */
    @Test
    void modbusTcp() throws IOException {
        List<String[]> rows = fields(recorded(Family.MODBUS_TCP), "mbtcp.trans_id", "mbtcp.unit_id", "modbus.func_code", "modbus.read_reference_num", "modbus.read_word_cnt",
                "modbus.write_reference_num", "modbus.write_word_cnt", "modbus.data");
        for (int i = 0; i < rows.size(); i++) {
            assertThat(rows.get(i)).startsWith(Integer.toString(i / 10 + 1), Integer.toString(i % 10 / 2 + 1), "23");
        }
        assertThat(rows.get(rows.size() - 10)).contains("512", Integer.toString(bench.inputBytes(0).length / 2), "256", Integer.toString(bench.outputBytes(0).length / 2));
        assertThat(rows.get(rows.size() - 10)[7].replace(":", "")).isEqualTo(hex(bench.outputBytes(0)));
        assertThat(rows.get(rows.size() - 9)[7].replace(":", "")).isEqualTo(hex(bench.inputBytes(0)));
    }
}
