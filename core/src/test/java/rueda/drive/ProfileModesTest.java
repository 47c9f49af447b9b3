package rueda.drive;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.function.BooleanSupplier;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import rueda.machine.Axis;
import rueda.plant.ServoPlant;

/**
 * Profile position, profile velocity and cyclic synchronous velocity by IEC 61800-7-201: handshake, bits and ends. The order of the bits is
 * that of the timing diagrams of the profile position mode (single setpoint, set of setpoints, change on setpoint); diagrams from memory.
 */
class ProfileModesTest {

    private static final int NEW = ControlWord.OPERATION_ENABLED | ControlWord.NEW_SETPOINT;
    private static final int IDLE = ControlWord.OPERATION_ENABLED;

    private Axis axis;
    private Drive drive;
    private final byte[] nothing = {};
    private double seconds;

    @BeforeEach
    void shuttleAt500() {
        axis = ListBench.shuttle(500, rueda.machine.MoveList.EMPTY).withCommandedBy(Axis.Commander.PROGRAM);
        axis = axis.withStation(axis.station().withOutputs(List.of()).withInputs(List.of()));
        make();
    }

    private void make() {
        drive = new Drive(axis, new ServoPlant(axis, 125e-6), 125_000, 8);
        seconds = 0;
    }

    private void enable(int mode) {
        drive.dictionary().set(DriveObject.MODE, mode);
        for (int word : new int[] {ControlWord.SHUTDOWN, ControlWord.SHUTDOWN, ControlWord.SWITCHED_ON, ControlWord.OPERATION_ENABLED}) {
            word(word);
        }
        run(0.01);
        assertThat(drive.state()).isEqualTo(PowerState.OPERATION_ENABLED);
    }

    private void word(int controlword) {
        drive.dictionary().set(DriveObject.CONTROLWORD, controlword);
        cycle();
    }

    private void cycle() {
        drive.cycle(nothing, nothing);
        seconds += 1e-3;
    }

    private void run(double time) {
        for (int k = 0; k < Math.round(time * 1000); k++) {
            cycle();
        }
    }

    private double until(BooleanSupplier so) {
        double from = seconds;
        while (!so.getAsBoolean()) {
            cycle();
            assertThat(seconds - from).as("waited too long").isLessThan(20);
        }
        return seconds - from;
    }

    private void target(double position) {
        drive.dictionary().set(DriveObject.TARGET_POSITION, axis.scale().wireFromUnits(position));
    }

    private boolean bit(int mask) {
        return (drive.dictionary().get(DriveObject.STATUSWORD) & mask) != 0;
    }

    private boolean reached() {
        return bit(StatusWord.TARGET_REACHED);
    }

    private boolean acknowledged() {
        return bit(StatusWord.MODE_12);
    }

    private double demand() {
        return Math.round(drive.demandPosition() * 1e4) / 1e4;
    }

    @Test
    void oneSetpointIsAcknowledgedAndReached() {
        enable(OperationMode.PROFILE_POSITION);
        assertThat(acknowledged()).isFalse();
        target(800);
        cycle();
        assertThat(demand()).as("a target alone starts nothing").isEqualTo(500);
        word(NEW);
        assertThat(acknowledged()).isTrue();
        assertThat(reached()).isFalse();
        run(0.05);
        assertThat(acknowledged()).as("until bit 4 goes back").isTrue();
        word(IDLE);
        assertThat(acknowledged()).isFalse();
        until(this::reached);
        assertThat(demand()).isEqualTo(800);
        assertThat(drive.position()).isCloseTo(800, within(0.05));
    }

    /** A single setpoint, bit 5 set: the second replaces the first at once. */
    @Test
    void aSingleSetpointReplacesTheRunningOne() {
        enable(OperationMode.PROFILE_POSITION);
        target(1500);
        word(NEW | ControlWord.CHANGE_IMMEDIATELY);
        word(IDLE);
        run(0.5);
        target(600);
        word(NEW | ControlWord.CHANGE_IMMEDIATELY);
        word(IDLE);
        double farthest = 0;
        while (!reached()) {
            cycle();
            farthest = Math.max(farthest, demand());
        }
        assertThat(farthest).isLessThan(900);
        assertThat(demand()).isEqualTo(600);
    }

    /** A set of setpoints, bit 5 clear: the second waits, a third finds no room, and the axis stands at the first. */
    @Test
    void aSetOfSetpointsIsWorkedOffOneAfterTheOther() {
        enable(OperationMode.PROFILE_POSITION);
        target(600);
        word(NEW);
        word(IDLE);
        target(700);
        word(NEW);
        word(IDLE);
        assertThat(acknowledged()).as("no room for another").isTrue();
        target(900);
        word(NEW);
        word(IDLE);
        until(() -> demand() >= 599.99);
        double slowest = drive.demandSpeed();
        for (int k = 0; k < 20; k++) {
            cycle();
            slowest = Math.min(slowest, drive.demandSpeed());
        }
        assertThat(slowest).as("it stands at the first").isLessThan(30);
        assertThat(acknowledged()).as("there is room again").isFalse();
        until(this::reached);
        assertThat(demand()).as("the third was not taken").isEqualTo(700);
    }

    /** Change on setpoint, bit 9: the first target is passed at speed. */
    @Test
    void changeOnSetpointPassesTheFirstTarget() {
        enable(OperationMode.PROFILE_POSITION);
        target(800);
        word(NEW);
        word(IDLE);
        target(1200);
        word(NEW | ControlWord.CHANGE_ON_SETPOINT);
        word(IDLE);
        until(() -> demand() >= 790);
        double slowest = Double.MAX_VALUE;
        while (demand() < 900) {
            slowest = Math.min(slowest, drive.demandSpeed());
            cycle();
        }
        assertThat(slowest).isGreaterThan(550);
        until(this::reached);
        assertThat(demand()).isEqualTo(1200);
    }

    @Test
    void relativeTargetsCountFromTheTargetBefore() {
        enable(OperationMode.PROFILE_POSITION);
        for (int k = 1; k <= 3; k++) {
            target(33.3333);
            word(NEW | ControlWord.RELATIVE);
            word(IDLE);
            until(this::reached);
        }
        assertThat(demand()).isEqualTo(599.9999);
    }

    @Test
    void haltBringsItToRestAndItGoesOnWithoutIt() {
        enable(OperationMode.PROFILE_POSITION);
        target(1000);
        word(NEW);
        word(IDLE);
        run(0.3);
        word(IDLE | ControlWord.HALT);
        until(this::reached);
        assertThat(demand()).isLessThan(1000);
        assertThat(drive.demandSpeed()).isZero();
        word(IDLE);
        cycle();
        assertThat(reached()).isFalse();
        until(this::reached);
        assertThat(demand()).isEqualTo(1000);
    }

    /** A setpoint that comes while the axis is halted waits for the halt to end. */
    @Test
    void aSetpointWhileHaltedStartsWhenTheHaltEnds() {
        enable(OperationMode.PROFILE_POSITION);
        word(IDLE | ControlWord.HALT);
        target(700);
        word(NEW | ControlWord.HALT);
        assertThat(acknowledged()).isTrue();
        run(0.5);
        assertThat(demand()).isEqualTo(500);
        word(IDLE);
        until(this::reached);
        assertThat(demand()).isEqualTo(700);
    }

    @Test
    void aTargetOutsideTheSoftLimitsEndsAtThem() {
        enable(OperationMode.PROFILE_POSITION);
        target(5000);
        word(NEW);
        assertThat(bit(StatusWord.INTERNAL_LIMIT)).isTrue();
        word(IDLE);
        until(this::reached);
        assertThat(demand()).isEqualTo(2330);
    }

    /** A bit that stands already when the mode is chosen or the axis is enabled makes no edge. */
    @Test
    void aStandingBitStartsNothing() {
        drive.dictionary().set(DriveObject.MODE, OperationMode.PROFILE_POSITION);
        target(800);
        for (int word : new int[] {ControlWord.SHUTDOWN, ControlWord.SHUTDOWN, ControlWord.SWITCHED_ON, ControlWord.OPERATION_ENABLED}) {
            word(word | ControlWord.NEW_SETPOINT);
        }
        run(0.2);
        assertThat(demand()).isEqualTo(500);
    }

    @Test
    void profileVelocityComesToItsSpeedOnItsRamps() {
        axis = ListBench.table(rueda.machine.MoveList.EMPTY).withCommandedBy(Axis.Commander.PROGRAM);
        axis = axis.withStation(axis.station().withOutputs(List.of()).withInputs(List.of()));
        make();
        enable(OperationMode.PROFILE_VELOCITY);
        assertThat(bit(StatusWord.MODE_12)).as("speed is zero").isTrue();
        drive.dictionary().set(DriveObject.TARGET_VELOCITY, axis.scale().wireFromUnits(60));
        drive.dictionary().set(DriveObject.PROFILE_ACCELERATION, axis.scale().wireFromUnits(30));
        run(1);
        assertThat(drive.demandSpeed()).isCloseTo(30, within(0.05));
        assertThat(bit(StatusWord.TARGET_REACHED)).isFalse();
        assertThat(bit(StatusWord.MODE_12)).isFalse();
        run(1.5);
        assertThat(drive.demandSpeed()).isCloseTo(60, within(1e-6));
        assertThat(bit(StatusWord.TARGET_REACHED)).isTrue();
        drive.dictionary().set(DriveObject.TARGET_VELOCITY, axis.scale().wireFromUnits(-20));
        run(3);
        assertThat(drive.demandSpeed()).isCloseTo(-20, within(1e-6));
        word(IDLE | ControlWord.HALT);
        run(1);
        assertThat(drive.demandSpeed()).isZero();
        word(IDLE);
        run(1);
        assertThat(drive.demandSpeed()).isCloseTo(-20, within(1e-6));
    }

    /** Common practice, no source: ramps, 0 to 60 Hz in 5 s are 12 Hz/s, 0 to 30 Hz take 2.5 s. Turns of the Table stand for the hertz. */
    @Test
    void aRampIsTheSameWhateverItsEnd() {
        axis = ListBench.table(rueda.machine.MoveList.EMPTY).withCommandedBy(Axis.Commander.PROGRAM);
        axis = axis.withStation(axis.station().withOutputs(List.of()).withInputs(List.of()));
        make();
        enable(OperationMode.PROFILE_VELOCITY);
        drive.dictionary().set(DriveObject.PROFILE_ACCELERATION, axis.scale().wireFromUnits(12));
        drive.dictionary().set(DriveObject.TARGET_VELOCITY, axis.scale().wireFromUnits(30));
        assertThat(until(() -> drive.demandSpeed() >= 30 - 1e-9)).isCloseTo(2.5, within(0.0011));
        drive.dictionary().set(DriveObject.TARGET_VELOCITY, axis.scale().wireFromUnits(60));
        assertThat(until(() -> drive.demandSpeed() >= 60 - 1e-9)).isCloseTo(2.5, within(0.0011));
    }

    @Test
    void anAxisWithEndsRunsUpToItsSoftLimitInBothVelocityModes() {
        for (int mode : new int[] {OperationMode.PROFILE_VELOCITY, OperationMode.CYCLIC_SYNCHRONOUS_VELOCITY}) {
            make();
            enable(mode);
            drive.dictionary().set(DriveObject.TARGET_VELOCITY, axis.scale().wireFromUnits(500));
            double farthest = 0;
            for (int k = 0; k < 6000; k++) {
                cycle();
                farthest = Math.max(farthest, drive.demandPosition());
            }
            assertThat(farthest).as(OperationMode.words(mode)).isBetween(2329.0, 2330.00002);
            assertThat(bit(StatusWord.INTERNAL_LIMIT)).isTrue();
            drive.dictionary().set(DriveObject.TARGET_VELOCITY, axis.scale().wireFromUnits(-500));
            run(0.5);
            assertThat(drive.demandPosition()).as("back is free").isLessThan(2200);
        }
    }

    /** The velocity of a sync is reached at the end of its bus cycle: the position is the integral of the polygon. */
    @Test
    void cyclicVelocityIsInterpolatedOverTheBusCycle() {
        enable(OperationMode.CYCLIC_SYNCHRONOUS_VELOCITY);
        double expected = 500;
        double before = 0;
        for (int k = 1; k <= 400; k++) {
            double speed = 200 * Math.sin(k * 0.01);
            drive.dictionary().set(DriveObject.TARGET_VELOCITY, axis.scale().wireFromUnits(speed));
            cycle();
            expected += (before + speed) / 2 * 1e-3;
            before = speed;
        }
        assertThat(drive.demandSpeed()).isCloseTo(before, within(0.01));
        assertThat(drive.demandPosition()).isCloseTo(expected, within(0.01));
        assertThat(bit(StatusWord.MODE_12)).as("follows the command").isTrue();
    }

    /** Whatever targets come in whatever order, the last one is reached, and the soft limits and the highest speed are kept on the way. */
    @Property(tries = 60)
    void anyTargetsInAnyOrder(@ForAll @Size(min = 1, max = 8) List<@DoubleRange(min = -100, max = 2500) Double> targets, @ForAll @Size(8) List<@IntRange(min = 1, max = 700) Integer> waits) {
        shuttleAt500();
        enable(OperationMode.PROFILE_POSITION);
        double low = 500;
        double high = 500;
        double fastest = 0;
        for (int i = 0; i < targets.size(); i++) {
            target(targets.get(i));
            word(NEW | ControlWord.CHANGE_IMMEDIATELY);
            word(IDLE);
            for (int k = 0; k < waits.get(i); k++) {
                cycle();
                low = Math.min(low, drive.demandPosition());
                high = Math.max(high, drive.demandPosition());
                fastest = Math.max(fastest, Math.abs(drive.demandSpeed()));
            }
        }
        until(this::reached);
        double last = axis.scale().unitsFromWire(axis.scale().wireFromUnits(targets.get(targets.size() - 1)));
        assertThat(demand()).isEqualTo(Math.max(-20, Math.min(2330, last)));
        assertThat(fastest).isLessThanOrEqualTo(axis.limits().normal().speed() + 1e-6);
        assertThat(low).isGreaterThanOrEqualTo(-20.0001);
        assertThat(high).isLessThanOrEqualTo(2330.0001);
    }
}
