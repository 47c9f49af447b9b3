package rueda.app;

import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.time.Instant;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rueda.app.machine.MachineJson;
import rueda.app.machine.MachineState;
import rueda.app.machine.MachineStore;
import rueda.app.proof.RunStore;
import rueda.app.web.Refusals.ProgramHasFaults;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;

import static org.assertj.core.api.Assertions.assertThat;

class CommandsTest {

    @TempDir
    Path folder;

    @Test
    void aProgramWithFaultsDoesNotRunAndStoresNothing() {
        MachineStore machines = mock(MachineStore.class);
        Machine faulty = DemoMachine.create().withProgram("PROGRAM P x := ; END_PROGRAM");
        when(machines.get(anyLong())).thenReturn(new MachineState(1, 1, Instant.EPOCH, false, false, faulty));
        RunStore runs = org.mockito.Mockito.mock(RunStore.class, org.mockito.Mockito.withSettings().useConstructor(machines, null, null, null)
                .defaultAnswer(org.mockito.Mockito.CALLS_REAL_METHODS));
        assertThatThrownBy(() -> runs.run(1)).isInstanceOf(ProgramHasFaults.class).hasMessageContaining("line 1");
    }

    @Test
    void theMachineFileReadsBackEqual() {
        Machine demo = DemoMachine.create();
        assertThat(MachineJson.read(MachineJson.write(demo))).isEqualTo(demo);
        assertThatThrownBy(() -> MachineJson.read("{\"name\": ")).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> MachineJson.read("null")).isInstanceOf(IllegalArgumentException.class).hasMessageContaining("empty");
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
