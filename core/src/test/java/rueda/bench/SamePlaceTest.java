package rueda.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import rueda.bus.BusFamily;
import rueda.bus.ProfiDriveSignal;
import rueda.bus.StandardTelegram;
import rueda.drive.Drive;
import rueda.machine.Axis;
import rueda.machine.Axis.Commander;
import rueda.machine.Bus.Family;
import rueda.machine.DemoMachine;
import rueda.machine.Encoder;
import rueda.machine.Homing;
import rueda.machine.Machine;
import rueda.machine.MoveEntry;
import rueda.machine.MoveList;
import rueda.machine.Station.Entry;

/** The Shuttle goes to the same two places, whoever commands it and however: by motion blocks, plain words, profile position, telegrams 7 and 9, the list. To the count. */
class SamePlaceTest {

    private static final String OBJECTS = """
            CASE Step OF
              0: Control := 16#06; IF (Status AND 16#6F) = 16#21 THEN Step := 1; END_IF
              1: Control := 16#07; IF (Status AND 16#6F) = 16#23 THEN Step := 2; END_IF
              2: Control := 16#0F; IF (Status AND 16#6F) = 16#27 THEN Step := 3; END_IF
            """;
    private static final String TELEGRAM = """
            CASE Step OF
              0: Control := 16#406; IF (Status AND 16#4F) = 16#01 THEN Step := 1; END_IF
              1: Control := 16#407; IF (Status AND 16#4F) = 16#03 THEN Step := 2; END_IF
              2: Control := 16#43F; IF (Status AND 16#4F) = 16#07 THEN Step := 3; END_IF
            """;

    private static Machine machine(Family family, Commander commander, UnaryOperator<Axis> station) {
        Axis shuttle = DemoMachine.shuttle();
        shuttle = shuttle.withEncoder(Encoder.absolute(19, 12)).withHoming(shuttle.homing().withAtPowerUp(Homing.AtPowerUp.MOTOR_ENCODER, -120)).withCommandedBy(commander)
                .withMoves(MoveList.of(MoveEntry.goTo("2100.0003").withSpeed(900), MoveEntry.goTo("300.1234").withSpeed(900)));
        Machine moved = BusFamily.moved(DemoMachine.create().withAxes(List.of(shuttle)).withProofs(List.of()), family);
        return moved.withAxis(0, station.apply(moved.axes().get(0)));
    }

    private static Axis objects(Axis axis) {
        return axis.withStation(axis.station().withEntries(
                List.of(new Entry(0x6040, 0, 16, "Control", "WORD"), Entry.filler(16), new Entry(0x607A, 0, 32, "Target", "DINT"), new Entry(0x6060, 0, 8, "Mode", "SINT"), Entry.filler(8), new Entry(0x2040, 1, 16, "Number", "UINT")),
                List.of(new Entry(0x6041, 0, 16, "Status", "WORD"), Entry.filler(16), new Entry(0x6064, 0, 32, "Place", "DINT"), new Entry(0x2040, 3, 16, "List", "WORD"), Entry.filler(16))));
    }

    private static Axis telegram(Axis axis, StandardTelegram telegram) {
        return axis.withStation(axis.station().withEntries(tagged(telegram.outputs()), tagged(telegram.inputs())));
    }

    private static List<Entry> tagged(List<ProfiDriveSignal> signals) {
        List<Entry> entries = new ArrayList<>();
        for (ProfiDriveSignal signal : signals) {
            String type = signal.format() == ProfiDriveSignal.Format.BITS ? "WORD" : signal.bits() == 32 ? signal == ProfiDriveSignal.MDI_VELOCITY ? "UDINT" : "DINT" : "INT";
            entries.add(new Entry(signal.number(), 0, signal.bits(), tag(signal), type));
        }
        return entries;
    }

    private static String tag(ProfiDriveSignal signal) {
        return switch (signal) {
            case STW1 -> "Control";
            case ZSW1 -> "Status";
            case SATZANW -> "Number";
            case AKTSATZ -> "Running";
            case MDI_TARPOS -> "Target";
            case MDI_VELOCITY -> "Speed";
            case MDI_ACC -> "Acceleration";
            case MDI_DEC -> "Deceleration";
            case MDI_MOD -> "How";
            case NSOLL_A, NSOLL_B -> "Turning";
            default -> "";
        };
    }

    static Stream<Arguments> ways() {
        String blocks = "Power(Axis := Shuttle, Enable := TRUE); Out(Axis := Shuttle, Execute := Power.Status, Position := 2100.0003, Velocity := 900.0);\n"
                + "Back(Axis := Shuttle, Execute := Out.Done, Position := 300.1234, Velocity := 900.0);\nIF Back.Done THEN Step := 9; END_IF\n";
        String profile = "Mode := 1;\n" + OBJECTS + """
                  3: Target := 21000003; Control := 16#1F; IF (Status AND 16#1000) <> 0 THEN Step := 4; END_IF
                  4: Control := 16#0F; IF (Status AND 16#1400) = 16#0400 THEN Step := 5; END_IF
                  5: Target := 3001234; Control := 16#1F; IF (Status AND 16#1000) <> 0 THEN Step := 6; END_IF
                  6: Control := 16#0F; IF (Status AND 16#1400) = 16#0400 THEN Step := 9; END_IF
                END_CASE
                """;
        String list = "Mode := -1;\n" + OBJECTS + """
                  3: Number := 0; Control := 16#1F; IF (List AND 16#01) <> 0 THEN Step := 4; END_IF
                  4: Control := 16#0F; IF (List AND 16#07) = 16#06 THEN Step := 5; END_IF
                  5: Number := 1; Control := 16#1F; IF (List AND 16#01) <> 0 THEN Step := 6; END_IF
                  6: Control := 16#0F; IF (List AND 16#07) = 16#06 THEN Step := 9; END_IF
                END_CASE
                """;
        String seven = TELEGRAM + """
                  3: Number := 0; Control := 16#47F; IF (Status AND 16#1400) = 16#1000 THEN Step := 4; END_IF
                  4: Control := 16#43F; IF (Status AND 16#3400) = 16#2400 THEN Step := 5; END_IF
                  5: Number := 1; Control := 16#47F; IF (Status AND 16#1400) = 16#1000 AND (Running AND 16#7F) = 1 THEN Step := 6; END_IF
                  6: Control := 16#43F; IF (Status AND 16#3400) = 16#2400 THEN Step := 9; END_IF
                END_CASE
                """;
        String nine = "Number := 16#8000; Speed := 9000000; Acceleration := 16384; Deceleration := 16384; How := 16#1;\n" + TELEGRAM + """
                  3: Target := 21000003; Control := 16#47F; IF (Status AND 16#1000) <> 0 THEN Step := 4; END_IF
                  4: Control := 16#43F; IF (Status AND 16#3400) = 16#2400 THEN Step := 5; END_IF
                  5: Target := 3001234; Control := 16#47F; IF (Status AND 16#1000) <> 0 THEN Step := 6; END_IF
                  6: Control := 16#43F; IF (Status AND 16#3400) = 16#2400 THEN Step := 9; END_IF
                END_CASE
                """;
        return Stream.of(Arguments.of("motion blocks", machine(Family.ETHERCAT, Commander.MOTION_BLOCKS, a -> a), blocks),
                Arguments.of("profile position on EtherCAT", machine(Family.ETHERCAT, Commander.PROGRAM, SamePlaceTest::objects), profile),
                Arguments.of("profile position on CANopen", machine(Family.CANOPEN, Commander.PROGRAM, SamePlaceTest::objects), profile),
                Arguments.of("profile position on EtherNet/IP", machine(Family.ETHERNET_IP, Commander.PROGRAM, SamePlaceTest::objects), profile),
                Arguments.of("registers of Modbus", machine(Family.MODBUS_TCP, Commander.PROGRAM, SamePlaceTest::objects), profile),
                Arguments.of("the list by words", machine(Family.ETHERCAT, Commander.PROGRAM, SamePlaceTest::objects), list),
                Arguments.of("a register of Modbus starts an entry", machine(Family.MODBUS_TCP, Commander.PROGRAM, SamePlaceTest::objects), list),
                Arguments.of("telegram 7", machine(Family.PROFINET, Commander.PROGRAM, a -> telegram(a, StandardTelegram.TELEGRAM_7)), seven),
                Arguments.of("telegram 9", machine(Family.PROFINET, Commander.PROGRAM, a -> telegram(a, StandardTelegram.TELEGRAM_9)), nine));
    }

    private static Bench bench(Machine machine, String body) {
        return new Bench(machine, "PROGRAM P VAR Step : INT; Was : BOOL; First : DINT; Power : MC_Power; Out, Back : MC_MoveAbsolute; END_VAR\n" + body + "\nEND_PROGRAM", 100);
    }

    private static double value(Bench bench, String name) {
        return bench.resource().program().variable(name).orElseThrow().number(bench.resource().memory());
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("ways")
    void theAxisComesToTheSamePlaces(String how, Machine machine, String program) {
        Bench bench = bench(machine, program);
        Drive drive = bench.drive(0);
        double farthest = 0;
        while (value(bench, "Step") != 9 && bench.now() < 20e9) {
            bench.cycle();
            farthest = Math.max(farthest, drive.demandPosition());
        }
        assertThat(value(bench, "Step")).as("it comes to the end").isEqualTo(9);
        /* counts of the encoder: 10⁻⁴ mm are 0.4 of one */
        double perCount = machine.axes().get(0).scale().unitsPerCount().toDouble();
        assertThat(Math.round(farthest / perCount)).isEqualTo(Math.round(2100.0003 / perCount));
        assertThat(Math.round(drive.demandPosition() / perCount)).isEqualTo(Math.round(300.1234 / perCount));
    }

    /** Which way an endless axis goes to 90°, and from there to 80°: MDI_MOD bits 1 and 2 (from memory), 60F2h bits 6 and 7 (from memory). */
    @ParameterizedTest
    @org.junit.jupiter.params.provider.CsvSource({"0, 90, 80", "1, 90, 440", "2, -270, -280", "3, 90, 80"})
    void anEndlessAxisGoesTheWayItIsTold(int way, double first, double second) {
        Axis table = DemoMachine.create().axis("Table").orElseThrow();
        table = table.withEncoder(Encoder.absolute(19, 12)).withHoming(table.homing().withAtPowerUp(Homing.AtPowerUp.MOTOR_ENCODER, 0)).withCommandedBy(Commander.PROGRAM);
        Machine plain = DemoMachine.create().withAxes(List.of(table)).withProofs(List.of());
        double wire = table.scale().wireUnitsPerUnit();
        String steps = "  3: Target := " + Math.round(90 * wire) + "; %1$s IF (Status AND 16#1000) <> 0 THEN Step := 4; END_IF\n  4: %2$s IF %3$s THEN Step := 5; END_IF\n"
                + "  5: Target := " + Math.round(80 * wire) + "; %1$s IF (Status AND 16#1000) <> 0 THEN Step := 6; END_IF\n  6: %2$s IF %3$s THEN Step := 9; END_IF\nEND_CASE\n";
        Machine profinet = BusFamily.moved(plain, Family.PROFINET);
        Machine nine = profinet.withAxis(0, telegram(profinet.axes().get(0), StandardTelegram.TELEGRAM_9));
        Bench direct = bench(nine, "Number := 16#8000; Speed := " + Math.round(60 * wire) + "; Acceleration := 16384; Deceleration := 16384; How := " + (1 + 2 * way) + ";\n" + TELEGRAM
                + String.format(steps, "Control := 16#47F;", "Control := 16#43F;", "(Status AND 16#3400) = 16#2400"));
        int[] options = {3, 2, 1, 0};
        Axis objects = objects(table);
        objects = objects.withStation(objects.station().withStartWrites(List.of(new rueda.machine.Station.StartWrite(0x60F2, 0, 16, (long) options[way] << 6, rueda.machine.Station.Transition.PREOP_TO_SAFEOP, "", true))));
        Bench byObjects = bench(plain.withAxis(0, objects), "Mode := 1;\n" + OBJECTS + String.format(steps, "Control := 16#1F;", "Control := 16#0F;", "(Status AND 16#1400) = 16#0400"));
        for (Bench bench : List.of(direct, byObjects)) {
            double at = bench.drive(0).plant().place();
            double from = bench.drive(0).demandPosition();
            double atFirst = Double.NaN;
            while (value(bench, "Step") != 9 && bench.now() < 60e9) {
                bench.cycle();
                atFirst = value(bench, "Step") == 5 && Double.isNaN(atFirst) ? bench.drive(0).plant().place() - at + from : atFirst;
            }
            assertThat(value(bench, "Step")).isEqualTo(9);
            assertThat(atFirst).isCloseTo(first, org.assertj.core.api.Assertions.within(0.1));
            assertThat(bench.drive(0).plant().place() - at + from).isCloseTo(second, org.assertj.core.api.Assertions.within(0.1));
        }
    }

    private static void tag(Bench bench, String name, long value) {
        bench.resource().memory()[bench.resource().program().variable(name).orElseThrow().slot()] = value;
    }

    /** Runs until bits of the status word that the PLC has are so. @return bus cycles that it took */
    private static int until(Bench bench, int bits, int wanted) {
        int cycles = 0;
        for (; ((int) value(bench, "Status") & bits) != wanted; cycles++) {
            assertThat(cycles).as("bits %X of the status word become %X", bits, wanted).isLessThan(30_000);
            bench.cycle();
        }
        return cycles;
    }

    private static void stays(Bench bench, int bits, int wanted, int cycles) {
        for (int i = 0; i < cycles; i++) {
            bench.cycle();
            assertThat((int) value(bench, "Status") & bits).as("bits %X of the status word stay %X", bits, wanted).isEqualTo(wanted);
        }
    }

    /**
     * The set-point handshake as the timing diagrams of IEC 61800-7-201 (profile position mode) have it, seen by the PLC under each family of
     * objects: new setpoint (6040h bit 4), acknowledged (6041h bit 12), target reached (bit 10).
     */
    @ParameterizedTest
    @org.junit.jupiter.params.provider.EnumSource(value = Family.class, names = "PROFINET", mode = org.junit.jupiter.params.provider.EnumSource.Mode.EXCLUDE)
    void theHandshakeBitByBit(Family family) {
        int acknowledged = 1 << 12;
        int reached = 1 << 10;
        int few = 12;
        Bench bench = bench(machine(family, Commander.PROGRAM, SamePlaceTest::objects), "Mode := 1;\n" + OBJECTS + "END_CASE\n");
        until(bench, 0x6F, 0x27);
        double from = bench.drive(0).demandPosition();
        tag(bench, "Target", 7_000_000);
        stays(bench, acknowledged, 0, 100);
        assertThat(bench.drive(0).demandPosition()).as("a target alone starts nothing").isEqualTo(from);
        /* a single setpoint: acknowledged while bit 4 stands, and no longer when it has gone */
        tag(bench, "Control", 0x1F);
        assertThat(until(bench, acknowledged, acknowledged)).isLessThan(few);
        stays(bench, acknowledged | reached, acknowledged, 100);
        tag(bench, "Control", 0x0F);
        assertThat(until(bench, acknowledged, 0)).isLessThan(few);
        until(bench, reached, reached);
        assertThat(bench.drive(0).demandPosition()).isCloseTo(700, org.assertj.core.api.Assertions.within(1e-4));
        /* a set of setpoints: the second waits, so that bit 12 stays until there is room again, which is at the first target */
        tag(bench, "Target", 8_000_000);
        tag(bench, "Control", 0x1F);
        until(bench, acknowledged | reached, acknowledged);
        tag(bench, "Control", 0x0F);
        assertThat(until(bench, acknowledged, 0)).isLessThan(few);
        tag(bench, "Target", 9_000_000);
        tag(bench, "Control", 0x1F);
        assertThat(until(bench, acknowledged, acknowledged)).isLessThan(few);
        tag(bench, "Control", 0x0F);
        stays(bench, acknowledged | reached, acknowledged, 50);
        until(bench, acknowledged, 0);
        assertThat(bench.drive(0).demandPosition()).isCloseTo(800, org.assertj.core.api.Assertions.within(1.0));
        until(bench, reached, reached);
        /* change at once (bit 5): the second replaces the first, each acknowledged */
        tag(bench, "Target", 20_000_000);
        tag(bench, "Control", 0x3F);
        until(bench, acknowledged, acknowledged);
        tag(bench, "Control", 0x2F);
        until(bench, acknowledged, 0);
        stays(bench, acknowledged | reached, 0, 200);
        tag(bench, "Target", 6_000_000);
        tag(bench, "Control", 0x3F);
        until(bench, acknowledged, acknowledged);
        tag(bench, "Control", 0x2F);
        until(bench, acknowledged | reached, reached);
        assertThat(bench.drive(0).demandPosition()).isCloseTo(600, org.assertj.core.api.Assertions.within(1e-4));
        /* halt (bit 8): reached when it stands, and on to the target without it */
        tag(bench, "Target", 20_000_000);
        tag(bench, "Control", 0x1F);
        until(bench, acknowledged, acknowledged);
        tag(bench, "Control", 0x0F);
        stays(bench, reached, 0, 300);
        tag(bench, "Control", 0x10F);
        until(bench, reached, reached);
        assertThat(bench.drive(0).demandSpeed()).isZero();
        assertThat(bench.drive(0).demandPosition()).isBetween(600.0, 1999.0);
        tag(bench, "Control", 0x0F);
        until(bench, reached, 0);
        until(bench, reached, reached);
        assertThat(bench.drive(0).demandPosition()).isCloseTo(2000, org.assertj.core.api.Assertions.within(1e-4));
    }

    /** Telegram 9 by IEC 61800-7-203: an edge of STW1 bit 6 is acknowledged by ZSW1 bit 12 as long as it stands; bit 10 is the target, bit 13 a stand. */
    @Test
    void theTaskOfATelegramBitByBit() {
        int acknowledged = 1 << 12;
        int reached = 1 << 10;
        int stands = 1 << 13;
        Bench bench = bench(machine(Family.PROFINET, Commander.PROGRAM, a -> telegram(a, StandardTelegram.TELEGRAM_9)),
                "Number := 16#8000; Speed := 9000000; Acceleration := 16384; Deceleration := 16384; How := 16#1;\n" + TELEGRAM + "END_CASE\n");
        until(bench, 0x4F, 0x07);
        tag(bench, "Target", 7_000_000);
        stays(bench, acknowledged | stands, stands, 100);
        tag(bench, "Control", 0x47F);
        until(bench, acknowledged, acknowledged);
        stays(bench, acknowledged | reached, acknowledged, 100);
        assertThat((int) value(bench, "Status") & stands).isZero();
        tag(bench, "Control", 0x43F);
        until(bench, acknowledged, 0);
        until(bench, reached | stands, reached | stands);
        assertThat(bench.drive(0).demandPosition()).isCloseTo(700, org.assertj.core.api.Assertions.within(1e-4));
        stays(bench, acknowledged | reached, reached, 100);
    }

    /** Speed telegrams turn the axis: N2 (telegram 1) or N4 of the motor's highest speed, frozen and cut by the bits of STW1. */
    @Test
    void speedTelegramsTurnTheAxis() {
        Axis table = DemoMachine.table().withCommandedBy(Commander.PROGRAM);
        Machine machine = BusFamily.moved(DemoMachine.create().withAxes(List.of(table)).withProofs(List.of()), Family.PROFINET);
        for (StandardTelegram telegram : List.of(StandardTelegram.TELEGRAM_1, StandardTelegram.TELEGRAM_2, StandardTelegram.TELEGRAM_3)) {
            Machine with = machine.withAxis(0, telegram(machine.axes().get(0), telegram));
            /* a tenth: N2 has 4000h for 100 %, N4 4000 0000h (PROFIdrive, normalised values) */
            boolean halfWord = telegram == StandardTelegram.TELEGRAM_1;
            double tenth = halfWord ? 1638.0 / 0x4000 : 107374182.0 / 0x40000000;
            Bench bench = bench(with, TELEGRAM + "  3: Control := 16#47F; Turning := " + (halfWord ? 1638 : 107374182) + "; IF Was THEN Control := 16#45F; Turning := 0; END_IF\nEND_CASE\n");
            bench.run(4);
            /* of 4500 1/min behind 100 : 1, in degrees a second */
            double expected = tenth * 4500 / 100 * 360 / 60;
            assertThat(bench.drive(0).demandSpeed()).as("telegram " + telegram.number()).isCloseTo(expected, org.assertj.core.api.Assertions.within(0.001));
            bench.resource().memory()[bench.resource().program().variable("Was").orElseThrow().slot()] = 1;
            bench.run(0.5);
            assertThat(bench.drive(0).demandSpeed()).as("bit 5 clear freezes the setpoint").isCloseTo(expected, org.assertj.core.api.Assertions.within(0.001));
        }
    }

    /** STW1 bit 5 clear is an intermediate stop, bit 4 clear gives the task up. */
    @Test
    void anIntermediateStopGoesOnAndARejectedTaskDoesNot() {
        for (boolean rejected : new boolean[] {false, true}) {
            Machine machine = machine(Family.PROFINET, Commander.PROGRAM, a -> telegram(a, StandardTelegram.TELEGRAM_7));
            String stop = rejected ? "16#46F" : "16#45F";
            Bench bench = bench(machine, TELEGRAM + "  3: Control := 16#47F; Step := 4;\n  4: First := First + 1; IF First > 100 THEN Step := 5; END_IF\n  5: Control := " + stop
                    + "; First := First + 1; IF First > 600 THEN Step := 6; END_IF\n  6: Control := 16#47F;\nEND_CASE\n");
            while (value(bench, "Step") < 6) {
                bench.cycle();
            }
            assertThat(bench.drive(0).demandSpeed()).isZero();
            double stopped = bench.drive(0).demandPosition();
            assertThat(stopped).isLessThan(2000);
            bench.run(4);
            if (rejected) {
                assertThat(bench.drive(0).demandPosition()).as("bit 6 was high all the time: no new edge").isEqualTo(stopped);
            } else {
                assertThat(bench.drive(0).demandPosition()).isCloseTo(2100.0003, org.assertj.core.api.Assertions.within(0.0001));
            }
        }
    }
}
