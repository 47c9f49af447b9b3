package rueda.proof.learn;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import rueda.bench.Bench;
import rueda.bench.ReadyProgram;
import rueda.bench.Recorded;
import rueda.bench.Stand;
import rueda.format.recording.Assignments;
import rueda.format.recording.LayoutGuess;
import rueda.format.recording.RecordingLayout;
import rueda.format.recording.RecordingReader;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.Load;
import rueda.machine.Machine;
import rueda.proof.Prover;
import rueda.proof.RecordedRun;
import rueda.recording.Brought;

/** The recording that the demo carries is what the bench makes with more friction; with {@code -Drueda.write=1} it is written anew. */
class DemoRecordingTest {

    private static final double CLOCK = 41_207.5;

    private static String written() {
        Machine machine = DemoMachine.create();
        Stand sound = Stand.of(machine);
        List<Axis> axes = new ArrayList<>(sound.axes());
        Load load = axes.get(0).load();
        axes.set(0, axes.get(0).withLoad(load.withFriction(load.coulomb() * DemoMachine.CELLAR_FRICTION, load.viscous() * DemoMachine.CELLAR_FRICTION)));
        RecordedRun run = Prover.recorded(machine, ReadyProgram.of(machine), machine.proofs().get(0), new Stand(axes, sound.disturbed(), 1), Recorded.ALL, Brought.Shelf.EMPTY);
        SplittableRandom random = new SplittableRandom(2026);
        int commanded = run.signal("Shuttle.commandedSpeed");
        int speed = run.signal("Shuttle.speed");
        int position = run.signal("Shuttle.position");
        int torque = run.signal("Shuttle.torque");
        StringBuilder text = new StringBuilder("Recorder 2;turning cell in the cellar\nTrigger;wheel ordered\n\nTime;Shuttle commanded speed;Shuttle speed;Shuttle position;Shuttle torque\ns;m/s;m/s;mm;%\n");
        double rated = machine.axes().get(0).motor().ratedTorque();
        for (long k = 3; k < run.samples(); k += 4) {
            text.append(String.format(Locale.ROOT, "%.3f;%.4f;%.4f;%.2f;%.1f%n", CLOCK + run.time(k), run.value(commanded, k) * 1e-3, run.value(speed, k) * 1e-3 + random.nextGaussian() * 0.002, run.value(position, k), 100 / rated * run.value(torque, k) + random.nextGaussian() * 1.5)
                    .replace('.', ',').replace("\r", ""));
        }
        return text.toString();
    }

    @Test
    void itIsTheDemosRunWithMoreFriction() throws IOException {
        String made = written();
        if (Boolean.getBoolean("rueda.write") || "1".equals(System.getProperty("rueda.write"))) {
            Files.writeString(Path.of("src/main/resources/rueda/machine", DemoMachine.RECORDING), made);
        }
        try (InputStream kept = DemoMachine.recording()) {
            assertThat(new String(kept.readAllBytes(), StandardCharsets.UTF_8)).isEqualTo(made);
        }
    }

    @Test
    void itIsReadAsItStands() throws IOException {
        Machine machine = DemoMachine.create();
        byte[] file;
        try (InputStream kept = DemoMachine.recording()) {
            file = kept.readAllBytes();
        }
        RecordingLayout layout = Assignments.suggested(LayoutGuess.guess(file), machine, new Bench(machine, 1).recording().signals());
        assertThat(layout.columns()).extracting(RecordingLayout.ColumnUse::signal).containsExactly("Shuttle.commandedSpeed", "Shuttle.speed", "Shuttle.position", "Shuttle.torque");
        assertThat(layout.columns()).extracting(RecordingLayout.ColumnUse::scale).containsExactly(1000.0, 1000.0, 1.0, machine.axes().get(0).motor().ratedTorque() / 100);
        long[] rows = {0};
        RecordingReader.read(new ByteArrayInputStream(file), layout, (time, values) -> rows[0]++);
        assertThat(rows[0]).isEqualTo(4500);
    }
}
