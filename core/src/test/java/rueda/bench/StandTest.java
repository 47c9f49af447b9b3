package rueda.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import rueda.bench.NetworkScan.Found;
import rueda.bench.NetworkScan.Kind;
import rueda.bus.BusFamily;
import rueda.bus.ClockDrift;
import rueda.drive.DriveFault;
import rueda.drive.DriveObject;
import rueda.drive.ParameterGroup;
import rueda.drive.PowerState;
import rueda.drive.StartUp;
import rueda.machine.Axis;
import rueda.machine.Bus.Clock;
import rueda.machine.Bus.Family;
import rueda.machine.Control;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.Station.Entry;
import rueda.machine.Station.StartWrite;
import rueda.machine.Station.Transition;
import rueda.plc.type.Type;

/** Devices on the bench that are not as planned, hold other parameters, run on drifting clocks. */
class StandTest {

    private static final Machine DEMO = DemoMachine.create();

    private static List<Kind> kinds(Machine machine, StandChange change) {
        Axis lift = machine.axes().get(1);
        Map<String, Optional<Found>> other = Map.of("Lift", NetworkScan.changed(machine, lift, Set.of(change)));
        return NetworkScan.of(machine, NetworkScan.stand(machine, other), Set.of(), 0, 65_535).differences().stream().map(NetworkScan.Difference::kind).toList();
    }

    @Test
    void eachChangeIsFound() {
        assertThat(kinds(DEMO, StandChange.MISSING)).containsExactly(Kind.MISSING);
        assertThat(kinds(DEMO, StandChange.OTHER_ADDRESS)).containsExactly(Kind.ADDRESS);
        assertThat(kinds(DEMO, StandChange.OLDER_REVISION)).containsExactly(Kind.REVISION);
        assertThat(kinds(DEMO, StandChange.OTHER_DEVICE)).containsExactly(Kind.PRODUCT);
        Machine profinet = BusFamily.moved(DEMO, Family.PROFINET);
        assertThat(kinds(profinet, StandChange.OTHER_ADDRESS)).containsExactly(Kind.NAME, Kind.NETWORK);
        assertThat(kinds(profinet, StandChange.OTHER_SUBNET)).containsExactly(Kind.NETWORK);
        assertThat(NetworkScan.of(DEMO, NetworkScan.stand(DEMO, Map.of()), Set.of(), 0, 65_535).differences()).isEmpty();
        assertThat(NetworkScan.of(DEMO, NetworkScan.stand(DEMO, Map.of()), Set.of(), 2, 4).found()).extracting(Found::axis).containsExactly("Lift", "Table", "Brush");
        /* by the last part of the IP address: 192.168.40.11 to .15 */
        assertThat(NetworkScan.of(profinet, NetworkScan.stand(profinet, Map.of()), Set.of(), 14, 254).found()).extracting(Found::axis).containsExactly("Brush", "Doser");
    }

    @ParameterizedTest
    @EnumSource(StandChange.class)
    void thePlcBringsWhatIsAsPlannedIntoOperation(StandChange change) {
        Axis lift = DEMO.axes().get(1);
        List<Found> stand = NetworkScan.stand(DEMO, Map.of("Lift", NetworkScan.changed(DEMO, lift, Set.of(change))));
        boolean runs = change == StandChange.OLDER_REVISION || change == StandChange.HOLDS_DATA || change == StandChange.OTHER_SUBNET;
        assertThat(NetworkScan.reachable(DEMO, lift, stand)).isEqualTo(runs);
    }

    @Test
    void aStationThatIsNotReachedStaysSilent() {
        Bench bench = new Bench(DEMO, 100);
        bench.disconnect(0);
        bench.run(3);
        assertThat(bench.connected(0)).isFalse();
        assertThat(bench.drive(0).state()).isNotEqualTo(PowerState.OPERATION_ENABLED);
        assertThat(bench.drive(1).state()).isEqualTo(PowerState.OPERATION_ENABLED);
    }

    /** The device says that its parameters are not whole, gives no torque, and can be put right either way. */
    @Test
    void interruptedWritingIsSaidFinishedOrUndone() {
        Bench bench = new Bench(DEMO, 100);
        bench.run(1);
        Axis before = bench.device(0).working();
        Axis other = before.withControl(new Control(30, 0.2, 30, 1, 1)).withLimits(before.limits().withMax(before.limits().max().withAcceleration(1000)));
        bench.writeDevice(0, other, EnumSet.of(ParameterGroup.GAINS, ParameterGroup.LIMITS), 1);
        bench.run(0.5);
        assertThat(bench.device(0).missing()).containsExactly(ParameterGroup.LIMITS);
        assertThat(bench.drive(0).state()).isEqualTo(PowerState.FAULT);
        assertThat(bench.drive(0).dictionary().get(DriveObject.ERROR_CODE)).isEqualTo(DriveFault.PARAMETERS.code());
        bench.endWriting(0, false);
        assertThat(bench.device(0).working()).isEqualTo(before);
        bench.writeDevice(0, other, EnumSet.of(ParameterGroup.GAINS, ParameterGroup.LIMITS), 0);
        bench.endWriting(0, true);
        assertThat(bench.device(0).working()).isEqualTo(other);
        assertThat(bench.device(0).incomplete()).isFalse();
    }

    /** A value added by hand is what the device starts with, after what follows from the configuration; a disabled one is not. */
    @Test
    void writesByHandComeLast() {
        Axis shuttle = DEMO.axes().get(0);
        StartWrite torque = new StartWrite(0x6072, 0, 16, 777, Transition.PREOP_TO_SAFEOP, "", true);
        StartWrite off = new StartWrite(0x6066, 0, 16, 99, Transition.PREOP_TO_SAFEOP, "", false);
        Axis written = shuttle.withStation(shuttle.station().withStartWrites(List.of(torque, off)));
        Machine machine = DEMO.withAxis(0, written);
        Bench bench = new Bench(machine, 10);
        assertThat(bench.drive(0).dictionary().get(DriveObject.MAX_TORQUE)).isEqualTo(777);
        assertThat(bench.drive(0).dictionary().get(DriveObject.FOLLOWING_TIME)).isNotEqualTo(99);
        List<StartWrite> all = StartUp.all(machine.bus(), written);
        assertThat(all.get(all.size() - 2)).isEqualTo(torque);
        /* ETG.1000.6 and CiA 301: assignment emptied, mapping emptied, filled, counted, assigned, counted */
        assertThat(all.subList(0, 8)).extracting(w -> String.format("%04X:%d=%X", w.object(), w.subIndex(), w.value()))
                .containsExactly("1C12:0=0", "1600:0=0", "1600:1=60400010", "1600:2=10", "1600:3=607A0020", "1600:4=60600008", "1600:0=4", "1C12:1=1600");
    }

    /** 50 ppm for 1 ms are 50 ns: clocks that are corrected every cycle stay within twice what they drift in one, and a step of 10 ns. */
    @Test
    void clocksStayTogetherAsFarAsTheirDriftLets() {
        for (int cycle : new int[] {250, 1000, 8000}) {
            ClockDrift.Drift drift = ClockDrift.run(DEMO.withBus(DEMO.bus().withCycleMicros(cycle)), 4);
            for (int i = 0; i < drift.stations().size(); i++) {
                double perCycle = Math.abs(ClockDrift.ppm(i) - ClockDrift.ppm(0)) * 1e-3 * cycle;
                assertThat(drift.stations().get(i).settled()).isLessThanOrEqualTo(2 * perCycle + 25);
                assertThat(drift.stations().get(i).settled()).isGreaterThanOrEqualTo(perCycle * 0.9);
            }
            assertThat(drift.stations().get(0).settled()).isZero();
        }
        Machine slow = DEMO.withBus(DEMO.bus().withCycleMicros(8000).withClock(new Clock("Lift", 0, 100)));
        ClockDrift.Drift late = ClockDrift.run(slow, 4);
        assertThat(late.reference()).isEqualTo("Lift");
        assertThat(late.stations()).anyMatch(s -> s.inTime() < 0);
    }

    /** On PROFINET the position gain travels: KPC is thousandths of 1/s, and follows what is written. */
    @Test
    void theGainOfThePlcFollowsWhatIsWritten() {
        Machine profinet = BusFamily.moved(DEMO, Family.PROFINET);
        Bench bench = new Bench(profinet, 100);
        bench.run(0.5);
        int kpc = BusFamily.layout(profinet.bus(), profinet.axes().get(0).station().outputs()).indexOf(rueda.bus.ProfiDriveSignal.KPC.number(), 0);
        var layout = BusFamily.layout(profinet.bus(), profinet.axes().get(0).station().outputs());
        assertThat(layout.read(bench.outputBytes(0), kpc)).isEqualTo(60_000);
        bench.writeDevice(0, profinet.axes().get(0).withControl(new Control(35, 0.25, 20, 1, 1)));
        bench.run(0.1);
        assertThat(layout.read(bench.outputBytes(0), kpc)).isEqualTo(35_000);
    }

    /** A forced bit stands whatever the PLC says: without "enable operation" the axis is never enabled. */
    @Test
    void aForcedBitStands() {
        Bench bench = new Bench(DEMO, 100);
        bench.forceBit(0, true, 3, false);
        bench.run(1);
        assertThat(bench.drive(0).state()).isEqualTo(PowerState.SWITCHED_ON);
        assertThat(bench.forcedBits(0, true)).isEqualTo(8);
        bench.releaseForces(0);
        bench.run(0.2);
        assertThat(bench.drive(0).state()).isEqualTo(PowerState.OPERATION_ENABLED);
    }

    /** A tag in units: 412 mm in the tag are 4 120 000 on the wire, and back. */
    @Test
    void tagsInUnitsAreScaledWhereTheyAreCopied() {
        Axis shuttle = DEMO.axes().get(0);
        List<Entry> inputs = new java.util.ArrayList<>(shuttle.station().inputs());
        inputs.set(2, inputs.get(2).withTag("Shuttle.Fb.Position", "LREAL").withScale("mm", new java.math.BigDecimal("10000")));
        Machine machine = DEMO.withAxis(0, shuttle.withStation(shuttle.station().withEntries(shuttle.station().outputs(), inputs)))
                .withProgram("PROGRAM P VAR Where : LREAL; Power : MC_Power; END_VAR Power(Axis := Shuttle, Enable := TRUE); Where := Shuttle.Fb.Position; END_PROGRAM");
        Bench bench = new Bench(machine, 100);
        bench.run(0.5);
        var at = bench.resource().program().variables().stream().filter(v -> v.name().equals("Where")).findFirst().orElseThrow();
        assertThat(at.type()).isEqualTo(Type.LREAL);
        assertThat(Double.parseDouble(bench.resource().text(at))).isCloseTo(bench.drive(0).position(), org.assertj.core.data.Offset.offset(0.001));
    }
}
