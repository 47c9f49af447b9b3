package rueda.trial;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.EnumSet;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;
import rueda.bench.Bench;
import rueda.bench.BenchCondition;
import rueda.bench.Recording;
import rueda.bus.BusFamily;
import rueda.machine.Axis;
import rueda.machine.Bus.Family;
import rueda.machine.DemoMachine;
import rueda.machine.Homing;
import rueda.machine.Machine;
import rueda.machine.Mistake;
import rueda.proof.Prover;

/**
 * Check sums of recordings and trials, to hold two states of the program against each other bit for bit: the first run with
 * {@code -Drueda.recordings=FILE} writes them, every later one compares. Not in the suite: another processor may round a sine otherwise.
 */
@EnabledIfSystemProperty(named = "rueda.recordings", matches = ".+")
class SameRecordingsTest {

    private final Map<String, String> sums = new TreeMap<>();

    private void sum(String name, Recording recording) throws Exception {
        MessageDigest digest = MessageDigest.getInstance("SHA-256");
        ByteBuffer row = ByteBuffer.allocate(Double.BYTES * recording.signals().size());
        for (long k = recording.first(); k < recording.count(); k++) {
            row.clear();
            for (int s = 0; s < recording.signals().size(); s++) {
                row.putDouble(recording.value(s, k));
            }
            digest.update(row.array());
        }
        sums.put(name, HexFormat.of().formatHex(digest.digest()) + " " + recording.count());
    }

    private void sum(String name, Object result) throws Exception {
        sums.put(name, HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(result.toString().getBytes(java.nio.charset.StandardCharsets.UTF_8))));
    }

    @Test
    void theSameAsBefore() throws Exception {
        Machine demo = DemoMachine.create();
        for (Family family : Family.values()) {
            sum("proof " + family, Prover.run(BusFamily.moved(demo, family), demo.proofs().get(0)).bench().recording());
        }
        for (Mistake mistake : Mistake.values()) {
            Bench bench = new Bench(demo, demo.plc().program(), 20_000, BenchCondition.throughout(Map.of("Shuttle", Set.of(mistake), "Lift", EnumSet.of(mistake))));
            bench.run(6);
            bench.stopAllAxes();
            bench.run(1);
            sum("mistake " + mistake, bench.recording());
        }
        for (int i = 0; i < demo.axes().size(); i++) {
            Axis axis = demo.axes().get(i);
            sum("move " + i, MoveTrial.run(demo, i));
            sum("step " + i, MoveTrial.step(demo, i));
            sum("identification " + i, Identification.run(demo, i, Set.of()));
            sum("movement " + i, MovementTrial.run(demo, i, Set.of()));
            sum("turn " + i, HandTurn.run(demo, i, Set.of()));
            sum("wiring " + i, WiringTrial.run(demo, i, Set.of(), "/axes/" + i));
            for (int method : new int[] {1, 2, 3, 4, 7, 10, 11, 14, 17, 18, 19, 20, 21, 23, 24, 26, 27, 28, 30, 33, 34, 37, -1, -2, -3, -4}) {
                Homing h = axis.homing();
                Machine homed = demo.withAxis(i, axis.withHoming(new Homing(method, h.searchSpeed(), h.creepSpeed(), h.acceleration(), h.zeroOffset(), h.stopTorque(), h.stopTime(), h.timeLimit(), h.thenToZero(), h.onFirstEnable(), h.atPowerUp(), h.encoderOffset())));
                String result;
                try {
                    result = HomingTrial.worst(homed, i).toString() + HomingTrial.run(homed, i, axis.travel().parkedAt());
                } catch (RuntimeException refused) {
                    result = refused.getClass().getName();
                }
                sum("homing " + i + " method " + method, result);
            }
        }
        byHand(demo);
        Path file = Path.of(System.getProperty("rueda.recordings"));
        List<String> lines = sums.entrySet().stream().map(e -> e.getKey() + " = " + e.getValue()).toList();
        if (Files.exists(file)) {
            assertThat(lines).isEqualTo(Files.readAllLines(file));
        } else {
            Files.write(file, lines);
        }
    }

    /** A hand does everything that a hand can do. */
    private void byHand(Machine demo) throws Exception {
        Bench bench = new Bench(demo, "PROGRAM ByHand\nEND_PROGRAM\n", 60_000);
        bench.takeByHand();
        bench.run(0.2);
        for (int i = 0; i < demo.axes().size(); i++) {
            bench.hand(i).enable(true);
        }
        bench.run(1);
        for (int i = 0; i < demo.axes().size(); i++) {
            bench.hand(i).jog(1, i % 2 == 0, bench.now());
        }
        bench.run(1);
        for (int i = 0; i < demo.axes().size(); i++) {
            bench.hand(i).halt(bench.now());
        }
        bench.run(1);
        for (int i = 0; i < demo.axes().size(); i++) {
            bench.hand(i).home(bench.now());
        }
        bench.run(12);
        for (int i = 0; i < demo.axes().size(); i++) {
            bench.hand(i).torque(5, 10, bench.now());
            bench.drive(i).analogue(i - 2);
        }
        bench.run(1);
        bench.restartDevice(1);
        bench.forceBit(0, true, 3, Boolean.FALSE);
        bench.drive(2).digitalInputs().force("X1", Boolean.TRUE);
        bench.run(1.5);
        sum("by hand", bench.recording());
    }
}
