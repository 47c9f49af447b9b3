package rueda.advice;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.bus.BusFamily;
import rueda.machine.Axis;
import rueda.machine.Bus.Family;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.Station.Entry;

/** Any entry followed both ways; numbers by hand from the Shuttle's train: 372 736 counts for 93 750 wire units of 0.0001 mm. */
class ValuePathTest {

    private static final Machine DEMO = DemoMachine.create();
    private static final Axis SHUTTLE = DEMO.axes().get(0);

    private static List<String> values(List<Figure> steps) {
        return steps.stream().map(f -> f.value().replace("\u202f", "").replace('\u2212', '-') + (f.unit().isEmpty() ? "" : " " + f.unit())).toList();
    }

    /** The position of 412 mm, from the load to the tag. */
    @Test
    void aPositionComesBack() {
        assertThat(values(ValuePath.up(DEMO, SHUTTLE, 2, 412))).containsExactly("412.0000064 mm", "31.2433338", "16380505", "4120000", "C0 DD 3E 00", "4120000");
    }

    @Test
    void aTagInUnitsIsDividedAtTheEnd() {
        List<Entry> inputs = new java.util.ArrayList<>(SHUTTLE.station().inputs());
        inputs.set(2, inputs.get(2).withTag("Shuttle.Fb.Position", "LREAL").withScale("mm", new java.math.BigDecimal("10000")));
        Axis axis = SHUTTLE.withStation(SHUTTLE.station().withEntries(SHUTTLE.station().outputs(), inputs));
        List<Figure> steps = ValuePath.up(DEMO.withAxis(0, axis), axis, 2, 412);
        assertThat(steps.get(steps.size() - 1)).isEqualTo(new Figure("Shuttle.Fb.Position, LREAL", "412", "mm", "÷ 10000"));
    }

    /** 100 mm/s: 9.1 motor turns for 120 mm, 455 turns a minute. */
    @Test
    void aSpeed() {
        assertThat(values(ValuePath.up(DEMO, SHUTTLE, 3, 100))).containsExactly("455 1/min", "100 mm/s", "1000000", "40 42 0F 00", "1000000");
    }

    /** Common practice, no source: raw 125 in tenths of a percent is 12.5 % of the rated 0.95 N·m. */
    @Test
    void aTorque() {
        assertThat(values(ValuePath.up(DEMO, SHUTTLE, 6, 12.5))).containsExactly("0.11875 N·m", "12.5 %", "125", "7D 00", "125");
    }

    /** What stands on the wire: FFFF FFFFh is −1 wire unit. */
    @Test
    void liveBitsAreSigned() {
        assertThat(values(ValuePath.live(DEMO, SHUTTLE, true, 2, 0xFFFF_FFFFL))).startsWith("-0.0001 mm", "-1", "FF FF FF FF");
        assertThat(values(ValuePath.live(DEMO, SHUTTLE, false, 0, 0x1237))).contains("operation enabled");
    }

    /** IEC 61800-7-203: 4000 0000h is 100 %; here of the motor's 5000 1/min, most significant byte first. */
    @Test
    void aNormalisedSpeedOnProfinet() {
        Machine profinet = BusFamily.moved(DEMO, Family.PROFINET);
        List<String> steps = values(ValuePath.down(profinet, profinet.axes().get(0), 1, 100));
        assertThat(steps).startsWith("100 %", "1073741824", "40 00 00 00", "100 %", "5000 1/min");
        assertThat(steps.get(5)).startsWith("1098.901").endsWith("mm/s");
        assertThat(values(ValuePath.down(profinet, profinet.axes().get(0), 1, 250))).contains("does not fit into 32 bits");
    }

    @ParameterizedTest
    @CsvSource({"ETHERCAT, C0 DD 3E 00", "CANOPEN, C0 DD 3E 00", "ETHERNET_IP, C0 DD 3E 00", "MODBUS_TCP, 00 3E DD C0"})
    void bytesInTheOrderOfTheBus(Family family, String bytes) {
        Machine machine = BusFamily.moved(DEMO, family);
        Axis axis = machine.axes().get(0);
        int target = BusFamily.layout(machine.bus(), axis.station().outputs()).indexOf(0x607A, 0);
        assertThat(values(ValuePath.down(machine, axis, target, 412))).contains(bytes);
    }
}
