package rueda.machine;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.List;
import rueda.machine.Axis.Kind;
import rueda.machine.Homing.AtPowerUp;
import rueda.machine.MoveList.By;
import rueda.machine.MoveList.Does;
import rueda.machine.MoveList.MoveException;
import rueda.machine.MoveList.Passing;
import rueda.machine.MoveList.Starter;
import rueda.machine.MoveList.Zone;
import rueda.machine.Expectation;
import rueda.machine.Station.Entry;
import rueda.machine.Terminal.Function;

/** The cheese-wheel cell that ships with Rueda: all data invented. */
public final class DemoMachine {

    private static final List<Function> ENDS = List.of(Function.NEGATIVE_LIMIT, Function.POSITIVE_LIMIT, Function.REFERENCE_CAM, Function.QUICK_STOP);
    private static final List<Function> TABLE_INPUTS = List.of(Function.NONE, Function.NONE, Function.REFERENCE_CAM, Function.QUICK_STOP, Function.ENABLE, Function.CUE, Function.CUE_2);
    private static final List<Function> DOSER_INPUTS = List.of(Function.NONE, Function.NONE, Function.NONE, Function.QUICK_STOP, Function.ENABLE, Function.CUE);
    private static final List<Function> NO_SWITCH = List.of(Function.NONE, Function.NONE, Function.NONE, Function.QUICK_STOP);

    private static final Cue RISING = Cue.of(Function.CUE, Cue.Edge.RISING);

    /** Where the encoder under the Table reads 0, its position after a search. */
    private static final double TABLE_OFFSET = 262.8;

    private DemoMachine() {
    }

    public static Machine create() {
        return new Machine("Ripening cellar · turning cell", new Bus(1000), new Plc(200_000, Plc.USUAL_STATEMENT_NANOS, List.of(new Plc.SourceFile("TurningCell.st", program("turning-cell.st"))), List.of(Plc.Task.main(2000)), List.of(), List.of()),
                List.of(guarded(shuttle(), SafetyFunction.SAFE_STOP_2), liftGuarded(), guarded(table(), SafetyFunction.SAFE_STOP_1), guarded(brush(), SafetyFunction.SAFE_STOP_1), guarded(saltDoser(), SafetyFunction.SAFE_STOP_1)),
                DemoProofs.all(), List.of(new SafetyRequest(DOOR, 10, 4, 50, new Protection(Protection.Kind.INTERLOCKED_GUARD, 14, 0, 120, false), 0), new SafetyRequest(EMERGENCY_STOP, 2, 0, 20, Protection.NONE, 0)));
    }

    static final String DOOR = "Door";
    static final String EMERGENCY_STOP = "Emergency stop";

    /** With a guard that the emergency stop asks for safe stop 1, and the door for something. */
    private static Axis guarded(Axis axis, SafetyFunction atTheDoor) {
        return axis.withGuard(AxisGuard.suiting(axis).withFitted(true).withAsks(List.of(new AxisGuard.Ask(DOOR, atTheDoor), new AxisGuard.Ask(EMERGENCY_STOP, SafetyFunction.SAFE_STOP_1))));
    }

    /** Its torque goes before the brake holds: the load sags. */
    private static Axis liftGuarded() {
        Axis lift = guarded(lift(), SafetyFunction.SAFE_STOP_1);
        return lift.withGuard(lift.guard().withStop1(lift.guard().stop1().withTorqueDelay(20)));
    }

    /** Name of the file of {@link #recording()}. */
    public static final String RECORDING = "shuttle-in-the-cellar.csv";

    /**
     * What a recorder wrote at an invented real cell while it did what the first proof does: commanded speed, speed, position and torque of the Shuttle, in its own units and with noise. Its rail is
     * dirtier than the document says: {@link #CELLAR_FRICTION} times as much friction.
     */
    public static InputStream recording() {
        return DemoMachine.class.getResourceAsStream(RECORDING);
    }

    /** By so much the friction of the invented real Shuttle is greater. */
    public static final double CELLAR_FRICTION = 1.8;

    /** The same work, the Shuttle commanded by plain words: the program writes control word, mode, target and dynamics, and nothing of it is a motion block. */
    public static Machine byWords() {
        Machine cell = create();
        Axis shuttle = cell.axes().get(0);
        BigDecimal wire = BigDecimal.valueOf(shuttle.scale().wireUnitsPerUnit());
        List<Entry> outputs = List.of(new Entry(0x6040, 0, 16, "Shuttle.Cmd.Control", "WORD"), Entry.filler(16),
                new Entry(0x607A, 0, 32, "Shuttle.Cmd.Position", "LREAL").withScale("mm", wire), new Entry(0x6081, 0, 32, "Shuttle.Cmd.Speed", "LREAL").withScale("mm/s", wire),
                new Entry(0x6083, 0, 32, "Shuttle.Cmd.Acceleration", "LREAL").withScale("mm/s²", wire), new Entry(0x6084, 0, 32, "Shuttle.Cmd.Deceleration", "LREAL").withScale("mm/s²", wire),
                new Entry(0x60A4, 1, 32, "Shuttle.Cmd.Jerk", "LREAL").withScale("mm/s³", wire), new Entry(0x6060, 0, 8, "Shuttle.Cmd.Mode", "SINT"));
        Proof proof = cell.proofs().get(0);
        return cell.withName("Ripening cellar · by plain words").withAxis(0, shuttle.withStation(shuttle.station().withOutputs(outputs)).withCommandedBy(Axis.Commander.PROGRAM))
                .withPlc(cell.plc().withFiles(List.of(new Plc.SourceFile("TurningCellByWords.st", program("turning-cell-words.st")))))
                .withProofs(List.of(proof.withExpectations(proof.expectations().stream().map(e -> e.after() == null ? e
                        : Expectation.arrives(e.axis(), e.position(), e.tolerance(), e.within(), e.after().replace(".Execute", ""), e.stays())).toList())));
    }

    /** The Brush driven by the infeed belt: an encoder on the belt at its second input, an input that ties it, and no PLC. */
    public static Machine byEncoder() {
        Machine cell = create();
        Axis brush = cell.axes().get(3);
        MasterEncoder belt = new MasterEncoder(MasterEncoder.Signal.QUADRATURE, 8192, false, "mm", 1, new BigDecimal("240"), 120, 400, true);
        Following follows = brush.following().withSource(Following.Source.ENCODER).withMaster("").withEncoder(belt).withFilter(4).withCatchUp(300)
                .withRatio(new Following.FollowRatio(Following.Form.PITCHES, 2, 7, new BigDecimal("3.5"), new BigDecimal("420"), new BigDecimal("1080")));
        Axis driven = brush.withFollowing(follows).withCommandedBy(Axis.Commander.DRIVE)
                .withWiring(Wiring.of(List.of(Function.NONE, Function.NONE, Function.NONE, Function.QUICK_STOP, Function.ENABLE, Function.FOLLOW, Function.TRIM_BACK, Function.TRIM_FORWARD), List.of(Function.READY, Function.FAULT)).with("X2", Function.MASTER_ENCODER));
        return cell.withName("Ripening cellar · brush on the infeed belt").withAxes(List.of(driven)).withProofs(List.of())
                .withPlc(cell.plc().withFiles(List.of(new Plc.SourceFile("Infeed.st", "PROGRAM Infeed\n  (* The brush follows the belt by itself: enable and follow are inputs of its drive. *)\nEND_PROGRAM\n"))));
    }

    /** The Shuttle: rack and pinion along the shelves, planetary reducer 91:10, 19-bit single-turn encoder. */
    public static Axis shuttle() {
        return new Axis("Shuttle", Kind.LINEAR, BigDecimal.ZERO, new Unit("mm", 4),
                new Motor(1.1e-4, 0.95, 2.4, 4400, 5000, 2.0),
                Encoder.absolute(19, 0), LoadEncoder.NONE,
                new Train(List.of(new Reducer(91, 10)), new Feed(Feed.Kind.RACK, 24, new BigDecimal("5"), "mm")),
                Load.along(160, 45, 60), Brake.NONE,
                new Travel(2560, 40, 2520, 100, 160, 620),
                new Limits(-20, 2330, new Dynamics(600, 2500, 2500, 25_000, 260), new Dynamics(950, 6000, 6000, 60_000, 260), 5000), Supervision.of(0.05, 5),
                32, new Duty(1800, 2),
                Homing.search(11, 120, 12, 800, 0),
                new Control(60, 0.25, 20, 1, 1),
                Station.usual("Shuttle", 1), Wiring.of(ENDS, List.of(Function.READY, Function.FAULT, Function.ZONE_1)).with("I8", Function.CUE))
                .withMoves(shuttleMoves());
    }

    /** The Lift: vertical screw with holding brake; the weight of carriage and wheel hangs on it. */
    public static Axis lift() {
        return new Axis("Lift", Kind.LINEAR, BigDecimal.ZERO, new Unit("mm", 4),
                new Motor(4.2e-4, 3.2, 9.5, 3000, 4500, 5.5),
                Encoder.absolute(17, 0), LoadEncoder.NONE,
                new Train(List.of(new Reducer(2, 1)), new Feed(Feed.Kind.SCREW, 1, new BigDecimal("10"), "mm")),
                new Load(120, 1.2e-3, 180, 400, 90, 0, 0, 0), new Brake(5, 60, 40),
                new Travel(900, 17.3, 885, 40, 70, 140),
                new Limits(0, 840, new Dynamics(200, 1200, 1200, 12_000, 250), new Dynamics(300, 2000, 2000, 40_000, 290), 3000), Supervision.of(0.05, 2),
                32, new Duty(600, 3),
                Homing.search(1, 60, 5, 400, 0).withStop(60, 200),
                new Control(50, 0.2, 16, 1, 1),
                Station.usual("Lift", 2), Wiring.of(ENDS, List.of(Function.READY, Function.FAULT, Function.BRAKE)));
    }

    /** The Table: endless, 100:1, on a springy shaft with play; an encoder under it tells at power-up where it stands. */
    public static Axis table() {
        return new Axis("Table", Kind.ENDLESS, new BigDecimal("360"), new Unit("°", 4),
                new Motor(3.0e-4, 1.3, 3.9, 3000, 4500, 2.5),
                Encoder.absolute(20, 0), new LoadEncoder(LoadEncoder.Use.REFERENCE, Encoder.absolute(14, 0)),
                new Train(List.of(new Reducer(100, 1)), new Feed(Feed.Kind.DIRECT, 1, BigDecimal.ONE, "turn")),
                new Load(0, 6, 8, 20, 0, 15, 0.012, 0.02), Brake.NONE,
                new Travel(360, 0, 0, 80, 100, 45),
                new Limits(0, 0, new Dynamics(60, 120, 120, 600, 200), new Dynamics(120, 240, 240, 2400, 300), 300), Supervision.of(0.05, 1),
                32, new Duty(180, 4),
                Homing.search(12, 20, 2, 60, 0).withAtPowerUp(AtPowerUp.LOAD_ENCODER, TABLE_OFFSET),
                new Control(12, 0.12, 40, 1, 1),
                Station.usual("Table", 3), Wiring.of(TABLE_INPUTS, List.of(Function.READY, Function.FAULT, Function.LIST_1, Function.ZONE_1)).with("X2", Function.LOAD_ENCODER))
                .withMoves(tableMoves());
    }

    /** The Brush: a belt pair 5:1 turns it; in the end it follows the Table 7 : 2. */
    public static Axis brush() {
        return new Axis("Brush", Kind.ENDLESS, new BigDecimal("360"), new Unit("°", 3),
                new Motor(0.6e-4, 0.64, 1.9, 3000, 5000, 1.1),
                Encoder.absolute(17, 0), LoadEncoder.NONE,
                new Train(List.of(new Reducer(5, 1)), new Feed(Feed.Kind.DIRECT, 1, BigDecimal.ONE, "turn")),
                new Load(0, 4e-3, 0.6, 0.02, 0, 0, 0, 0), Brake.NONE,
                new Travel(360, 0, 0, 0, 0, 200),
                new Limits(0, 0, new Dynamics(1500, 4000, 4000, 40_000, 200), new Dynamics(3000, 9000, 9000, 150_000, 290), 12_000), Supervision.of(2, 20),
                32, new Duty(3600, 2),
                Homing.search(34, 90, 20, 600, 0).withTimeLimit(30),
                new Control(50, 0.08, 20, 1, 1),
                Station.usual("Brush", 4), Wiring.of(NO_SWITCH, List.of(Function.READY, Function.FAULT)))
                .withFollowing(brushFollows());
    }

    /** The salt doser: a screw feeder measured in grams. */
    public static Axis saltDoser() {
        return new Axis("Doser", Kind.ENDLESS, BigDecimal.ZERO, new Unit("g", 5),
                new Motor(0.3e-4, 0.32, 0.95, 3000, 5000, 0.6),
                Encoder.incremental(2500), LoadEncoder.NONE,
                new Train(List.of(new Reducer(5, 1)), new Feed(Feed.Kind.FEEDER, 1, new BigDecimal("0.35"), "g")),
                new Load(0, 3e-4, 0.45, 0.01, 0, 0, 0, 0), Brake.NONE,
                new Travel(0.35, 0, 0, 0, 0, 0.1),
                new Limits(0, 0, new Dynamics(2, 10, 10, 100, 200), new Dynamics(4, 40, 40, 1000, 290), 60), Supervision.of(0.002, 0.2),
                32, new Duty(3.5, 1),
                Homing.search(37, 0.2, 0.05, 2, 0).withTimeLimit(30),
                new Control(40, 0.008, 20, 1, 1),
                Station.usual("Doser", 5), Wiring.of(DOSER_INPUTS, List.of(Function.READY, Function.FAULT, Function.ZONE_1)))
                .withMoves(doserMoves());
    }

    /** 7 turns for 2 of the Table: one wheel goes by under three and a half turns of the brush. */
    private static Following brushFollows() {
        return Following.NONE.withSource(Following.Source.SETPOINT).withMaster("Table")
                .withRatio(new Following.FollowRatio(Following.Form.TURNS, 2, 7, new BigDecimal("3.5"), new BigDecimal("360"), new BigDecimal("1260")))
                .withCatchUp(180).withTrimSpeed(60).withPhaseWindow(1);
    }

    /** One input, two places: high goes out fast, low comes back slow. Slots begin behind 1800 mm. */
    private static MoveList shuttleMoves() {
        return MoveList.of(MoveEntry.goTo("2100").withName("Out to the slot").withSpeed(900), MoveEntry.goTo("300").withName("Back to the table").withSpeed(250))
                .withStarters(List.of(new Starter(By.LEVEL, RISING, 0, 1)))
                .withZones(List.of(new Zone(280, 320, 2, Passing.BOTH, true)));
    }

    /** Four quarters of a turn with a rest for the brush; goes on by itself. */
    private static MoveList tableMoves() {
        return MoveList.of(MoveEntry.output(1, true, 1).withName("Brush may work"),
                        MoveEntry.goBy("90").withName("Quarter turn").thenGoOn(2, 0.8),
                        MoveEntry.repeat(1, 4, 3).withName("Whole turn"),
                        MoveEntry.output(1, false, 4).withName("Brush away"),
                        MoveEntry.of(MoveEntry.Kind.WAIT).withName("Next wheel").thenGoOn(0, 3))
                .withStarters(List.of(new Starter(By.EDGE, RISING, 0, 0)))
                .withExceptions(List.of(new MoveException(Cue.of(Function.CUE_2, Cue.Edge.RISING), Does.STOP, 0, 0, 0, 255), new MoveException(Cue.of(Function.CUE_2, Cue.Edge.FALLING), Does.GO_ON, 0, 0, 0, 255)))
                .withZones(List.of(new Zone(350, 10, 0.5, Passing.BOTH, true)));
    }

    /** A dose every 4 s: the rest sets the rate. */
    private static MoveList doserMoves() {
        return MoveList.of(MoveEntry.goBy("3.5").withName("One dose").thenGoOn(0, 1.944))
                .withStarters(List.of(new Starter(By.EDGE, RISING, 0, 0)))
                .withZones(List.of(new Zone(0, 350, 0.01, Passing.BOTH, false)));
    }

    private static String program(String file) {
        try (InputStream source = DemoMachine.class.getResourceAsStream(file)) {
            return new String(source.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }
}
