package rueda.machine;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.List;
import rueda.machine.Proof.Expectation;
import rueda.machine.Proof.Quantity;
import rueda.machine.Station.Entry;

/** The cheese-wheel cell that ships with Rueda: all data invented. */
public final class DemoMachine {

    private DemoMachine() {
    }

    public static Machine create() {
        return new Machine("Ripening cellar · turning cell", new Bus(1000), new Plc(2000, 200_000, program()),
                List.of(shuttle()), proof());
    }

    /** The Shuttle: rack and pinion along the shelves, planetary reducer 91:10, 19-bit single-turn encoder. */
    public static Axis shuttle() {
        return new Axis("Shuttle",
                new Axis.Unit("mm", 4, new BigDecimal("0.001")),
                new Axis.Motor(1.1e-4, 0.95, 2.4, 5000),
                new Axis.Encoder(524_288),
                new Axis.Reducer(91, 10),
                new Axis.Feed(24, new BigDecimal("5")),
                new Axis.Load(160, 45, 60),
                new Axis.Travel(2560, 40, 2520, 100, 160, 620),
                new Axis.Limits(-20, 2330, 950, 6000, 60_000, 6000, 5, 20),
                new Axis.Homing(11, 120, 12, 800, 0),
                new Axis.Control(60, 0.25, 20, 1, 1),
                new Station(List.of(
                        new Entry(0x6040, 0, 16, "Shuttle.Cmd.Control", "WORD"),
                        new Entry(0, 0, 16, "", ""),
                        new Entry(0x607A, 0, 32, "Shuttle.Cmd.Position", "DINT"),
                        new Entry(0x6060, 0, 8, "Shuttle.Cmd.Mode", "SINT")),
                        List.of(
                        new Entry(0x6041, 0, 16, "Shuttle.Fb.Status", "WORD"),
                        new Entry(0, 0, 16, "", ""),
                        new Entry(0x6064, 0, 32, "Shuttle.Fb.Position", "DINT"),
                        new Entry(0x606C, 0, 32, "Shuttle.Fb.Speed", "DINT"),
                        new Entry(0x60F4, 0, 32, "Shuttle.Fb.FollowingError", "DINT"),
                        new Entry(0x60FD, 0, 32, "Shuttle.Fb.Inputs", "DWORD"),
                        new Entry(0x6077, 0, 16, "Shuttle.Fb.Torque", "INT"),
                        new Entry(0x6061, 0, 8, "Shuttle.Fb.Mode", "SINT"))));
    }

    private static Proof proof() {
        return new Proof("Fetch a wheel from slot 7", 18, List.of(
                Expectation.arrives("Shuttle", 2100, 0.05, 3.6, "ToSlot.Execute", 0.3),
                Expectation.arrives("Shuttle", 300, 0.05, 3.6, "ToTable.Execute", 0.3),
                Expectation.bound("Shuttle", Quantity.SPEED, 920),
                Expectation.bound("Shuttle", Quantity.FOLLOWING_ERROR, 0.25),
                Expectation.noError("Shuttle")));
    }

    private static String program() {
        try (InputStream source = DemoMachine.class.getResourceAsStream("turning-cell.st")) {
            return new String(source.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }
}
