package rueda.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.List;
import org.junit.jupiter.api.Test;
import rueda.machine.Proof.Expectation;

class MachineRulesTest {

    private static List<String> fields(Machine machine) {
        return MachineRules.check(machine).stream().map(EntryFault::field).toList();
    }

    private static Machine with(Axis axis) {
        return DemoMachine.create().withAxis(0, axis);
    }

    private static Axis reducer(long motor, long output) {
        Axis a = DemoMachine.shuttle();
        return new Axis(a.name(), a.unit(), a.motor(), a.encoder(), new Axis.Reducer(motor, output), a.feed(), a.load(), a.travel(), a.limits(), a.homing(), a.control(), a.station());
    }

    @Test
    void theDemoCanBeStored() {
        assertThat(MachineRules.check(DemoMachine.create())).isEmpty();
    }

    @Test
    void impossibleGearNamesFieldValueAndWhatIsAllowed() {
        EntryFault fault = MachineRules.check(with(reducer(91, 0))).get(0);
        assertThat(fault.field()).isEqualTo("/axes/0/reducer/outputTurns");
        assertThat(fault.value()).isEqualTo("0");
        assertThat(fault.allowed()).isEqualTo("1 to 2147483647");
        assertThat(fields(with(reducer(-5, 10)))).containsExactly("/axes/0/reducer/motorTurns");
        assertThat(fields(with(reducer(2_147_483_647, 1)))).as("overflows").containsExactly("/axes/0/reducer/motorTurns");
    }

    @Test
    void everyFaultIsReportedAtOnce() {
        Axis a = DemoMachine.shuttle();
        Axis bad = new Axis("1st", a.unit(), new Axis.Motor(-1, 1, 0.5, Double.NaN), a.encoder(), a.reducer(), new Axis.Feed(0, new BigDecimal("-5")),
                new Axis.Load(0, -1, 0), a.travel(), a.limits(), new Axis.Homing(12, 1, 1, 1, 0), a.control(), a.station());
        assertThat(fields(with(bad))).contains("/axes/0/name", "/axes/0/motor/inertia", "/axes/0/motor/peakTorque", "/axes/0/motor/maxSpeed",
                "/axes/0/feed/teeth", "/axes/0/feed/pitch", "/axes/0/load/mass", "/axes/0/load/coulomb", "/axes/0/homing/method");
    }

    @Test
    void missingPartsAreNamed() {
        assertThat(fields(new Machine("m", null, null, List.of(), null))).containsExactly("/bus", "/plc", "/proof");
        assertThat(fields(new Machine("m", new Bus(1000), new Plc(1000, 1000, ""), List.of(new Axis("A", null, null, null, null, null, null, null, null, null, null, null)), new Proof("p", 1, List.of()))))
                .contains("/axes/0/motor", "/axes/0/station");
    }

    @Test
    void expectationsNeedTheirSlots() {
        Machine demo = DemoMachine.create();
        Proof proof = new Proof("p", 0, List.of(Expectation.arrives("Shuttle", Double.NaN, 0, -1, "", 0), Expectation.bound("Nobody", null, 0), Expectation.noError("Shuttle")));
        assertThat(fields(new Machine(demo.name(), demo.bus(), demo.plc(), demo.axes(), proof))).containsExactly("/proof/duration",
                "/proof/expectations/0/after", "/proof/expectations/0/position", "/proof/expectations/0/tolerance", "/proof/expectations/0/within",
                "/proof/expectations/1/axis", "/proof/expectations/1/quantity", "/proof/expectations/1/limit");
    }

    @Test
    void tagsAreNames() {
        Axis a = DemoMachine.shuttle();
        Axis bad = a.withStation(new Station(List.of(new Station.Entry(0x6040, 0, 16, "no name", "WORDS")), List.of()));
        assertThat(fields(with(bad))).containsExactly("/axes/0/station/outputs/0/tag", "/axes/0/station/outputs/0/tagType");
    }
}
