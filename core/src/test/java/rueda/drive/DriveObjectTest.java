package rueda.drive;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import rueda.machine.Machine;
import rueda.machine.Axis;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.bench.Bench;
import rueda.machine.DemoMachine;

class DriveObjectTest {

    /** Indices and types of IEC 61800-7-201 (CiA 402-2), object dictionary. */
    @ParameterizedTest
    @CsvSource({"CONTROLWORD, 0x6040, 0, UINT", "STATUSWORD, 0x6041, 0, UINT", "MODE, 0x6060, 0, SINT", "MODE_DISPLAY, 0x6061, 0, SINT",
            "POSITION_ACTUAL, 0x6064, 0, DINT", "FOLLOWING_WINDOW, 0x6065, 0, UDINT", "VELOCITY_ACTUAL, 0x606C, 0, DINT", "TORQUE_ACTUAL, 0x6077, 0, INT",
            "TARGET_POSITION, 0x607A, 0, DINT", "HOME_OFFSET, 0x607C, 0, DINT", "SOFT_LIMIT_MIN, 0x607D, 1, DINT", "SOFT_LIMIT_MAX, 0x607D, 2, DINT",
            "HOMING_METHOD, 0x6098, 0, SINT", "HOMING_SEARCH_SPEED, 0x6099, 1, UDINT", "HOMING_CREEP_SPEED, 0x6099, 2, UDINT",
            "FOLLOWING_ERROR_ACTUAL, 0x60F4, 0, DINT", "DIGITAL_INPUTS, 0x60FD, 0, UDINT"})
    void indexAndType(DriveObject object, String index, int subIndex, String type) {
        assertThat(object.index()).isEqualTo(Integer.decode(index));
        assertThat(object.subIndex()).isEqualTo(subIndex);
        assertThat(object.dataType()).isEqualTo(type);
        assertThat(DriveObject.find(object.index(), subIndex)).isSameAs(object);
    }

    /** Values are cut to the width of the object, as in the device. */
    @Test
    void valuesHaveTheWidthOfTheObject() {
        ObjectDictionary dictionary = new ObjectDictionary();
        dictionary.set(DriveObject.TORQUE_ACTUAL, 40_000);
        dictionary.set(DriveObject.CONTROLWORD, -1);
        assertThat(dictionary.get(DriveObject.TORQUE_ACTUAL)).isEqualTo(40_000 - 65_536);
        assertThat(dictionary.get(DriveObject.CONTROLWORD)).isEqualTo(0xFFFF);
    }

    /** Position factors 608Fh, 6091h, 6092h as the master writes them at start-up. */
    @Test
    void positionFactorsAtStartUp() {
        ObjectDictionary dictionary = new Bench(DemoMachine.create(), 10).drive(0).dictionary();
        assertThat(dictionary.get(DriveObject.ENCODER_INCREMENTS)).isEqualTo(524_288);
        assertThat(dictionary.get(DriveObject.GEAR_MOTOR_TURNS)).isEqualTo(91);
        assertThat(dictionary.get(DriveObject.GEAR_SHAFT_TURNS)).isEqualTo(10);
        assertThat(dictionary.get(DriveObject.FEED)).isEqualTo(1_200_000);
    }

    /** The scale is written at start-up: resolution, gear and feed, both numbers of each. A factor changed by hand changes how far the axis goes. */
    @Test
    void startUpWritesThePositionFactorsAndTheyAct() {
        Machine demo = DemoMachine.create();
        Axis shuttle = demo.axes().get(0);
        assertThat(StartUp.derived(demo.bus(), shuttle)).extracting(w -> String.format("%04X:%d", w.object(), w.subIndex())).contains("608F:1", "608F:2", "6091:1", "6091:2", "6092:1", "6092:2");
        rueda.machine.Station.StartWrite doubled = new rueda.machine.Station.StartWrite(0x6091, 1, 32, 182, rueda.machine.Station.Transition.PREOP_TO_SAFEOP, "", true);
        rueda.machine.Station.StartWrite nothing = new rueda.machine.Station.StartWrite(0x6091, 2, 32, 0, rueda.machine.Station.Transition.PREOP_TO_SAFEOP, "", true);
        Axis other = shuttle.withStation(shuttle.station().withStartWrites(java.util.List.of(doubled, nothing)));
        Drive drive = new rueda.bench.Bench(demo.withAxis(0, other), 10).drive(0);
        Drive plain = new rueda.bench.Bench(demo, 10).drive(0);
        assertThat(drive.dictionary().get(DriveObject.GEAR_SHAFT_TURNS)).as("0 is refused").isEqualTo(10);
        assertThat(drive.position()).isCloseTo(plain.position() / 2, org.assertj.core.api.Assertions.within(0.01));
    }
}
