package rueda.drive;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import rueda.bench.Bench;
import rueda.bench.BenchCondition;
import rueda.trial.HomingTrial;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.Encoder;
import rueda.machine.Homing;
import rueda.machine.Homing.AtPowerUp;
import rueda.machine.LoadEncoder;
import rueda.machine.LoadEncoder.Use;
import rueda.machine.Machine;
import rueda.machine.Travel;
import rueda.machine.Unit;
import rueda.machine.Mistake;

/** A second encoder on the load; the Table with 14 bits on both sides of 100 : 1. */
class LoadEncoderTest {

    /** 14 bits at the motor, 14 bits at the load, 100 : 1, standing at a place of the load. */
    private static Axis table(double place, Use use, AtPowerUp atPowerUp) {
        Axis t = DemoMachine.table();
        return t.withEncoder(Encoder.absolute(14, 0)).withLoadEncoder(new LoadEncoder(use, Encoder.absolute(14, 0))).withUnit(new Unit("°", 3))
                .withTravel(new Travel(360, 0, 0, 80, 100, place)).withHoming(Homing.search(12, 20, 2, 60, 0).withAtPowerUp(atPowerUp, 0));
    }

    private static Bench bench(Axis axis, Mistake... mistakes) {
        Machine demo = DemoMachine.create();
        return new Bench(new Machine("m", demo.bus(), demo.plc(), List.of(axis), demo.proofs()), "PROGRAM P END_PROGRAM", 4000, BenchCondition.throughout(Map.of(axis.name(), Set.of(mistakes))));
    }

    /** Second encoder on the load, 14 bits load, 14 bits motor, 100 : 1: 1 638 400 motor counts per load turn (common practice, no source). */
    @Test
    void countsPerLoadTurn() {
        Axis axis = table(0, Use.REFERENCE, AtPowerUp.LOAD_ENCODER);
        assertThat(axis.scale().countsPerUnit().times(rueda.quantity.Ratio.of(360)).numerator()).isEqualTo(1_638_400);
    }

    /** Waking up a quarter turn away: the load encoder reads 4096 of 16 384, so the axis is at 0.25 load turn = 409 600 motor counts (common practice, no source). */
    @Test
    void wakingUpAQuarterTurnAway() {
        Bench bench = bench(table(90, Use.REFERENCE, AtPowerUp.LOAD_ENCODER));
        Drive drive = bench.drive(0);
        assertThat(drive.dictionary().get(DriveObject.LOAD_POSITION)).isEqualTo(4096);
        assertThat(drive.referenced()).isTrue();
        assertThat(drive.position()).isCloseTo(90, within(1e-9));
        assertThat(drive.position() * 1_638_400 / 360).isCloseTo(409_600, within(0.5));
        assertThat(drive.plant().counts()).as("the motor's own single-turn value would be wrong").isZero();
    }

    /** An absolute motor encoder knows the position when its turns cover the travel. */
    @Test
    void anAbsoluteEncoderWithItsOffset() {
        Axis lift = DemoMachine.lift();
        Axis knowing = lift.withEncoder(Encoder.absolute(17, 12)).withHoming(lift.homing().withAtPowerUp(AtPowerUp.MOTOR_ENCODER, -20));
        Bench bench = bench(knowing);
        assertThat(bench.drive(0).referenced()).isTrue();
        assertThat(bench.drive(0).position()).isCloseTo(lift.travel().parkedAt() - 20, within(1e-4));
        Bench forgetful = bench(lift);
        assertThat(forgetful.drive(0).referenced()).isFalse();
    }

    /** An incremental encoder begins at 0 wherever it stands: it gives no reference, whatever is entered. */
    @Test
    void anEncoderThatKnowsNothingGivesNoReference() {
        Axis lift = DemoMachine.lift();
        assertThat(bench(lift.withEncoder(Encoder.incremental(2048)).withHoming(lift.homing().withAtPowerUp(AtPowerUp.MOTOR_ENCODER, 0))).drive(0).referenced()).isFalse();
        Axis table = table(90, Use.REFERENCE, AtPowerUp.LOAD_ENCODER);
        assertThat(bench(table.withLoadEncoder(new LoadEncoder(Use.REFERENCE, Encoder.incremental(4096)))).drive(0).referenced()).isFalse();
    }

    /** Agreement of both encoders at zero, slow approach: within about 10 counts of the load encoder (common practice, no source). */
    @Test
    void bothEncodersAgreeAfterASlowApproach() {
        Bench bench = bench(table(45, Use.REFERENCE, AtPowerUp.NOTHING));
        long motorFrom = bench.drive(0).plant().counts();
        long loadFrom = bench.drive(0).dictionary().get(DriveObject.LOAD_POSITION);
        bench.takeByHand();
        bench.hand(0).enable(true);
        bench.run(0.2);
        bench.hand(0).jog(1, false, bench.now());
        bench.run(2);
        bench.hand(0).halt(bench.now());
        bench.run(0.5);
        double turned = (bench.drive(0).plant().counts() - motorFrom) / 1_638_400.0;
        double read = (bench.drive(0).dictionary().get(DriveObject.LOAD_POSITION) - loadFrom) / 16_384.0;
        assertThat(turned).isGreaterThan(0.02);
        assertThat((turned - read) * 16_384).isCloseTo(0, within(10.0));
    }

    /** Closed over the load, the loop takes play and wind-up out that the motor alone leaves. */
    @Test
    void thePositionLoopOverTheLoadTakesThePlayOut() {
        double[] left = new double[2];
        for (Use use : new Use[] {Use.NONE, Use.POSITION_LOOP}) {
            Axis t = DemoMachine.table();
            rueda.machine.Load l = t.load();
            Axis axis = t.withLoad(new rueda.machine.Load(0, l.inertia(), l.coulomb(), l.viscous(), 0, l.stiffness(), l.damping(), 0.2))
                    .withLoadEncoder(new LoadEncoder(use, Encoder.absolute(20, 0))).withHoming(Homing.search(37, 20, 2, 60, 0));
            Bench bench = bench(axis);
            bench.takeByHand();
            bench.hand(0).enable(true);
            bench.run(0.2);
            double from = bench.drive(0).plant().place();
            bench.hand(0).step(90, bench.now());
            bench.run(4);
            left[use == Use.NONE ? 0 : 1] = Math.abs(bench.drive(0).plant().place() - from - 90);
        }
        assertThat(left[0]).as("half the play or more").isGreaterThan(0.05);
        assertThat(left[1]).isLessThan(0.02);
    }

    /** Homing over the load takes its zero from the motor's index, where the load then is. */
    @Test
    void homingWithTheLoopOverTheLoad() {
        Axis t = DemoMachine.table();
        Axis axis = t.withLoadEncoder(new LoadEncoder(Use.POSITION_LOOP, Encoder.absolute(20, 0))).withHoming(Homing.search(12, 20, 2, 60, 0));
        HomingTrial.Result byMotor = HomingTrial.run(DemoMachine.create(), 2, 45);
        Machine demo = DemoMachine.create();
        HomingTrial.Result byLoad = HomingTrial.run(new Machine("m", demo.bus(), demo.plc(), List.of(axis), demo.proofs()), 0, 45);
        assertThat(byLoad.found()).isTrue();
        assertThat(byLoad.zero()).isCloseTo(byMotor.zero(), within(0.1));
    }

    /** A missing line on the second encoder raises a line-break fault the moment the input is enabled (common practice, no source). */
    @Test
    void aBrokenLineIsAFaultAtOnceAndCannotBeReset() {
        Bench bench = bench(table(45, Use.REFERENCE, AtPowerUp.LOAD_ENCODER), Mistake.LOAD_ENCODER_BROKEN);
        bench.run(0.02);
        assertThat(bench.drive(0).dictionary().get(DriveObject.ERROR_CODE)).isEqualTo(DriveFault.LOAD_ENCODER.code());
        assertThat(bench.drive(0).state()).isEqualTo(PowerState.FAULT);
        assertThat(bench.drive(0).referenced()).isFalse();
        bench.takeByHand();
        bench.hand(0).reset();
        bench.run(0.2);
        assertThat(bench.drive(0).state()).isEqualTo(PowerState.FAULT);
        Bench unused = bench(table(45, Use.NONE, AtPowerUp.NOTHING), Mistake.LOAD_ENCODER_BROKEN);
        unused.run(0.02);
        assertThat(unused.drive(0).state()).as("an encoder that is not used cannot break").isNotEqualTo(PowerState.FAULT);
    }

    /** An encoder that counts backward is put right by turning its direction over in the drive. */
    @Test
    void aReversedEncoderTurnedOverWorksAgain() {
        Axis axis = DemoMachine.shuttle().withHoming(Homing.search(37, 20, 2, 60, 0));
        for (boolean turnedOver : new boolean[] {false, true}) {
            Bench bench = bench(turnedOver ? axis.withEncoder(axis.encoder().turnedOver()) : axis, Mistake.ENCODER_REVERSED);
            bench.takeByHand();
            bench.hand(0).enable(true);
            bench.run(0.2);
            double from = bench.drive(0).plant().place();
            bench.hand(0).step(30, bench.now());
            bench.run(1);
            assertThat(bench.drive(0).dictionary().get(DriveObject.ERROR_CODE) == 0).isEqualTo(turnedOver);
            if (turnedOver) {
                assertThat(bench.drive(0).plant().place() - from).isCloseTo(30, within(0.05));
            }
        }
    }

    /** Turned over, the index pulse is still where the shaft has it. */
    @Test
    void theIndexPulseOfAReversedEncoder() {
        Axis right = DemoMachine.shuttle().withEncoder(Encoder.incremental(1024));
        Machine demo = DemoMachine.create();
        double[] zero = new double[2];
        for (int i = 0; i < 2; i++) {
            Axis axis = i == 0 ? right : right.withEncoder(right.encoder().turnedOver());
            Bench bench = new Bench(new Machine("m", demo.bus(), demo.plc(), List.of(axis), demo.proofs()), HomingTrial.program("Shuttle"), 16,
                    BenchCondition.throughout(Map.of("Shuttle", i == 0 ? Set.of() : Set.of(Mistake.ENCODER_REVERSED))));
            bench.run(8);
            assertThat(bench.drive(0).referenced()).isTrue();
            zero[i] = bench.drive(0).plant().place() - bench.drive(0).position();
        }
        assertThat(zero[1]).isCloseTo(zero[0], within(0.01));
    }

    /** Wherever the load stands and however fine its encoder is, the axis wakes up within one of its counts. */
    @Property(tries = 200)
    void itWakesUpWhereTheLoadStands(@ForAll @DoubleRange(min = 0, max = 359.9) double place, @ForAll @IntRange(min = 6, max = 20) int bits, @ForAll @DoubleRange(min = -180, max = 180) double offset) {
        double rounded = Math.rint(offset * 1000) / 1000;
        Axis axis = table(place, Use.REFERENCE, AtPowerUp.LOAD_ENCODER).withLoadEncoder(new LoadEncoder(Use.REFERENCE, Encoder.absolute(bits, 0)));
        Bench bench = bench(axis.withHoming(axis.homing().withAtPowerUp(AtPowerUp.LOAD_ENCODER, rounded)));
        double behind = Math.IEEEremainder(place + rounded - bench.drive(0).position(), 360);
        assertThat(behind).isBetween(-0.001, 360.0 / (1 << bits) + 0.001);
    }
}
