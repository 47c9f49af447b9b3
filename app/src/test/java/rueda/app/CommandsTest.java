package rueda.app;

import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rueda.app.machine.MachineJson;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;

import static org.assertj.core.api.Assertions.assertThat;

class CommandsTest {

    @TempDir
    Path folder;

    @Test
    void theMachineFileReadsBackEqual() {
        Machine demo = DemoMachine.create();
        assertThat(MachineJson.read(MachineJson.write(demo))).isEqualTo(demo);
    }

    /** The Shuttle as the first version of this program wrote it. */
    @Test
    void anOlderDocumentStillOpens() {
        Machine old = MachineJson.read("""
                {"name":"m","bus":{"cycleMicros":1000},"plc":{"taskIntervalMicros":2000,"instructionBudget":200000,"program":"PROGRAM P END_PROGRAM"},
                 "proof":{"name":"p","duration":1,"expectations":[]},"axes":[{"name":"Shuttle","unit":{"symbol":"mm","decimals":4,"metres":0.001},
                 "motor":{"inertia":1.1e-4,"ratedTorque":0.95,"peakTorque":2.4,"maxSpeed":5000},"encoder":{"countsPerTurn":524288},
                 "reducer":{"motorTurns":91,"outputTurns":10},"feed":{"teeth":24,"pitch":5},"load":{"mass":160,"coulomb":45,"viscous":60},
                 "travel":{"length":2560,"negativeLimit":40,"positiveLimit":2520,"camFrom":100,"camTo":160,"parkedAt":620},
                 "limits":{"softMin":-20,"softMax":2330,"maxSpeed":950,"maxAcceleration":6000,"maxJerk":60000,"quickStop":6000,"followingError":5,"followingErrorTime":20},
                 "homing":{"method":11,"searchSpeed":120,"creepSpeed":12,"acceleration":800,"zeroOffset":0},
                 "control":{"positionGain":60,"velocityGain":0.25,"integralTime":20,"feedForward":1,"torqueForward":1},
                 "station":{"outputs":[],"inputs":[]}}]}""");
        assertThat(rueda.machine.MachineRules.check(old)).isEmpty();
        assertThat(old.axes().get(0).scale()).isEqualTo(DemoMachine.shuttle().scale());
        assertThat(old.axes().get(0).limits().max().speed()).isEqualTo(950);
        assertThat(old.axes().get(0).supervision().followingError()).isEqualTo(5);
        assertThat(old.axes().get(0).supervision().allowedFollowingError(950, 950)).as("it did not grow with speed").isEqualTo(5);
        assertThat(old.axes().get(0).wiring().terminals()).extracting(rueda.machine.Terminal::name).contains("STO", "A1", "X2");
        assertThatThrownBy(() -> MachineJson.read("{\"name\": ")).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> MachineJson.read("null")).isInstanceOf(IllegalArgumentException.class).hasMessageContaining("holds no machine");
    }

    /** Exit codes of the command line: 0 all hold, 1 one does not, 2 could not run. */
    @Test
    void proveExitCodes() throws Exception {
        Machine demo = DemoMachine.create();
        assertThat(prove(MachineJson.write(demo))).isEqualTo(1);
        assertThat(prove(MachineJson.write(demo.withProgram(demo.plc().program().replace("Acceleration := 6000.0", "Acceleration := 5300.0"))))).isZero();
        assertThat(prove(MachineJson.write(demo.withProgram("PROGRAM")))).isEqualTo(2);
        assertThat(prove("{ no json")).isEqualTo(2);
        assertThat(prove("{\"name\":\"m\"}")).isEqualTo(2);
    }

    private int prove(String json) throws Exception {
        Path file = java.nio.file.Files.writeString(folder.resolve("machine.json"), json);
        return new picocli.CommandLine(new Commands()).execute("prove", file.toString());
    }
}
