package rueda.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.math.BigDecimal;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.advice.FollowAdvice;
import rueda.edit.AxisEdit;
import rueda.edit.FollowEdit;
import rueda.edit.VirtualMasterEdit;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.EntryFault;
import rueda.machine.Following;
import rueda.machine.Homing;
import rueda.machine.Machine;
import rueda.machine.MachineRules;
import rueda.machine.VirtualMaster;
import rueda.quantity.InvalidEntry;
import rueda.trial.FollowTrial;

/** A master that is nothing but a setpoint in the PLC: moved by blocks and by hand, followed, stored, renamed. */
class VirtualMasterTest {

    private static final String HEAD = "PROGRAM P VAR P1, P2, P3 : MC_Power; H1, H2 : MC_Home; HL : MC_Home; Run : MC_MoveVelocity; Go : MC_MoveAbsolute; Halt : MC_Halt; G1, G2 : MC_GearIn; Where : MC_ReadStatus; Pos : MC_ReadActualPosition; Ready, A, B : BOOL; END_VAR\n"
            + "P1(Axis := Table, Enable := TRUE); P2(Axis := Brush, Enable := TRUE); P3(Axis := Line, Enable := TRUE); H1(Axis := Table, Execute := P1.Status); H2(Axis := Brush, Execute := P2.Status); Where(Axis := Line, Enable := TRUE); Pos(Axis := Line, Enable := TRUE);\n"
            + "Ready := Ready OR H1.Done AND H2.Done;\n";

    private static Machine machine() {
        Machine demo = DemoMachine.create();
        Axis table = demo.axis("Table").orElseThrow().withHoming(Homing.search(37, 20, 2, 60, 0));
        Axis brush = demo.axis("Brush").orElseThrow().withHoming(Homing.search(37, 20, 2, 60, 0));
        return demo.withAxes(List.of(table, brush)).withProofs(List.of()).withPlc(demo.plc().withVirtualMasters(List.of(VirtualMaster.named("Line"))));
    }

    private static Bench bench(String body) {
        return new Bench(machine(), HEAD + body + "\nEND_PROGRAM", 5000);
    }

    private static double value(Bench bench, String name) {
        return bench.resource().program().variable(name).orElseThrow().number(bench.resource().memory());
    }

    private static void until(Bench bench, String name) {
        for (int i = 0; i < 60_000 && value(bench, name) != 1; i++) {
            bench.cycle();
        }
        assertThat(value(bench, name)).as(name).isEqualTo(1);
    }

    /** Two axes follow one line; both are to the wire unit where their ratios say, in every cycle. */
    @Test
    void twoAxesFollowIt() {
        Bench bench = bench("G1(Master := Line, Slave := Table, Execute := Ready, RatioNumerator := 1, RatioDenominator := 3); G2(Master := Line, Slave := Brush, Execute := Ready, RatioNumerator := -7, RatioDenominator := 2);"
                + " Run(Axis := Line, Execute := G1.InGear AND G2.InGear OR A, Velocity := 60.0); A := A OR Run.Active; Halt(Axis := Line, Execute := B);");
        until(bench, "Run.InVelocity");
        VirtualLine line = bench.virtualMaster("LINE");
        assertThat(line.speed()).isCloseTo(60, within(1e-9));
        bench.run(20);
        assertThat(value(bench, "Where.ContinuousMotion")).isEqualTo(1);
        assertThat(bench.axis(0).followState().way()).isCloseTo(line.way() / 3, within(1e-4));
        assertThat(bench.axis(1).followState().way()).isCloseTo(-3.5 * line.way(), within(1e-4));
        assertThat(value(bench, "Pos.Position")).as("it begins again after its modulo").isBetween(0.0, 360.0);
        assertThat(value(bench, "Pos.Position")).isCloseTo(line.way() % 360, within(0.2));
        int signal = bench.recording().indexOf("Line.commandedSpeed");
        assertThat(bench.recording().value(signal, bench.recording().count() - 1)).isCloseTo(60, within(1e-9));
        assertThat(bench.recording().signals().get(signal).unit()).isEqualTo("°/s");
    }

    /** Blocks find it as an axis: it knows where it is, takes a place by homing, and stands when it is told to. */
    @Test
    void blocksMoveItAsAnAxis() {
        Bench bench = bench("Go(Axis := Line, Execute := P3.Status, Position := 90.0, Velocity := 90.0, Direction := mcPositiveDirection); A := Go.Done; HL(Axis := Line, Execute := A, Position := 12.5); B := HL.Done;");
        until(bench, "A");
        assertThat(bench.virtualMaster("Line").position()).isCloseTo(90, within(1e-9));
        assertThat(bench.virtualMaster("Line").way()).isCloseTo(90, within(1e-9));
        until(bench, "B");
        bench.run(0.01);
        assertThat(bench.virtualMaster("Line").position()).isCloseTo(12.5, within(1e-9));
        assertThat(bench.virtualMaster("Line").way()).as("another number is no way").isCloseTo(90, within(1e-9));
        assertThat(value(bench, "Where.Standstill")).isEqualTo(1);
        bench.stopAllAxes();
        bench.run(0.1);
        assertThat(bench.virtualMaster("Line").words()).contains("disabled");
    }

    @Test
    void byHand() {
        Machine machine = machine();
        machine = machine.withAxis(1, machine.axes().get(1).withFollowing(FollowEdit.of(machine, 1, Following.Source.SETPOINT, "Line")));
        assertThat(MachineRules.check(machine)).isEmpty();
        Bench bench = new Bench(machine, "PROGRAM P VAR x : BOOL; END_VAR x := TRUE; END_PROGRAM", 100);
        bench.takeByHand();
        bench.run(0.05);
        VirtualLine line = bench.virtualMaster("Line");
        assertThat(line.run(60, bench.now())).contains("Enable it first");
        line.enable(true);
        bench.hand(1).enable(true);
        bench.run(0.6);
        assertThat(line.run(-30, bench.now())).isNull();
        bench.run(1);
        assertThat(line.speed()).isCloseTo(-30, within(1e-9));
        assertThat(bench.followByHand(1)).isNull();
        bench.run(2);
        assertThat(bench.axis(1).followState().locked()).isTrue();
        assertThat(line.run(0, bench.now())).isNull();
        bench.run(1);
        assertThat(line.speed()).isZero();
    }

    @Test
    void isTriedAndReckonedAsAnotherMasterIs() {
        Machine machine = machine();
        Machine following = machine.withAxis(1, machine.axes().get(1).withFollowing(FollowEdit.of(machine, 1, Following.Source.SETPOINT, "line")));
        Following f = following.axes().get(1).following();
        assertThat(f.master()).isEqualTo("Line");
        FollowTrial.Followed tried = FollowTrial.run(following, 1, 60, true);
        assertThat(tried.refusal()).isNull();
        assertThat(tried.locked()).isNotNull();
        assertThat(FollowAdvice.of(following, following.axes().get(1), "/axes/1").figures()).anySatisfy(figure -> assertThat(figure.label()).isEqualTo("Delay behind Line")).anySatisfy(figure -> assertThat(figure.label()).isEqualTo("Load behind load"));
    }

    private static List<String> refused(Machine machine) {
        return MachineRules.check(machine).stream().map(EntryFault::field).toList();
    }

    private static Machine with(VirtualMaster master) {
        return machine().withPlc(machine().plc().withVirtualMasters(List.of(master)));
    }

    @ParameterizedTest
    @CsvSource({"Table, name", "2nd, name"})
    void namesThatCannotBe(String name, String field) {
        assertThat(refused(with(VirtualMaster.named(name)))).containsExactly("/plc/virtualMasters/0/" + field);
    }

    @Test
    void whatCannotBeStored() {
        VirtualMaster line = VirtualMaster.named("Line");
        assertThat(MachineRules.check(with(line))).isEmpty();
        assertThat(refused(with(line.withModulo(BigDecimal.ZERO)))).containsExactly("/plc/virtualMasters/0/modulo");
        assertThat(refused(with(line.withModulo(new BigDecimal("0.00001"))))).containsExactly("/plc/virtualMasters/0/modulo");
        assertThat(refused(with(line.withModulo(new BigDecimal("1e12"))))).containsExactly("/plc/virtualMasters/0/modulo");
        assertThat(refused(with(line.withSpeed(200)))).containsExactly("/plc/virtualMasters/0/speed");
        assertThat(refused(with(line.withAcceleration(Double.NaN)))).containsExactly("/plc/virtualMasters/0/acceleration");
        assertThat(refused(with(line.withUnit(new rueda.machine.Unit("", 4))))).contains("/plc/virtualMasters/0/unit/symbol");
        assertThat(refused(with(line.withName(null)))).containsExactly("/plc/virtualMasters/0/name");
        assertThat(refused(with(line.withUnit(null)))).containsExactly("/plc/virtualMasters/0/unit");
        Machine machine = machine();
        Axis actual = machine.axes().get(1).withFollowing(machine.axes().get(1).following().withSource(Following.Source.ACTUAL).withMaster("Line"));
        assertThat(refused(machine.withAxis(1, actual))).containsExactly("/axes/1/following/source");
    }

    @Test
    void theListOfThemIsChanged() {
        Machine machine = new VirtualMasterEdit.Add().on(machine());
        assertThat(machine.plc().virtualMasters()).extracting(VirtualMaster::name).containsExactly("Line", "Line1");
        machine = machine.withAxis(1, machine.axes().get(1).withFollowing(FollowEdit.of(machine, 1, Following.Source.SETPOINT, "Line"))).withProgram("PROGRAM P VAR x : MC_Power; END_VAR x(Axis := Line, Enable := TRUE); END_PROGRAM");
        Machine renamed = new VirtualMasterEdit.Rename("line", "Feed").on(machine);
        assertThat(renamed.axes().get(1).following().master()).isEqualTo("Feed");
        assertThat(renamed.plc().program()).contains("Axis := Feed");
        Machine removed = new VirtualMasterEdit.Remove("Feed").on(renamed);
        assertThat(removed.axes().get(1).following().source()).isEqualTo(Following.Source.NONE);
        assertThat(removed.plc().virtualMasters()).extracting(VirtualMaster::name).containsExactly("Line1");
        assertThat(MachineRules.check(removed)).isEmpty();
        Machine begun = machine;
        assertThatThrownBy(() -> new VirtualMasterEdit.Rename("Line", "Table").on(begun)).isInstanceOf(InvalidEntry.class);
        assertThatThrownBy(() -> new VirtualMasterEdit.Rename("Line", "IF").on(begun)).isInstanceOf(InvalidEntry.class);
        assertThatThrownBy(() -> new VirtualMasterEdit.Remove("Nobody").on(begun)).isInstanceOf(InvalidEntry.class);
        assertThatThrownBy(() -> new AxisEdit.Rename("Brush", "line1").on(begun)).isInstanceOf(InvalidEntry.class);
    }
}
