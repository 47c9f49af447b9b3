package rueda.advice;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.List;
import java.util.function.UnaryOperator;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import rueda.bus.BusFamily;
import rueda.bus.description.DeviceDescription;
import rueda.edit.AxisEdit;
import rueda.format.description.ShippedDevices;
import rueda.machine.Axis;
import rueda.machine.Bus;
import rueda.machine.Control;
import rueda.machine.DemoMachine;
import rueda.machine.Feed;
import rueda.machine.Machine;
import rueda.machine.MachineRules;

/** What is computed of the changes alone is what would be computed of the whole. */
class DocumentAdviceTest {

    private static final Machine DEMO = DemoMachine.create();
    private static final List<DeviceDescription> KNOWN = ShippedDevices.all();

    private static UnaryOperator<Machine> onAxis(int wanted, UnaryOperator<Axis> change) {
        return machine -> machine.axes().isEmpty() ? machine : machine.withAxis(wanted % machine.axes().size(), change.apply(machine.axes().get(wanted % machine.axes().size())));
    }

    @Provide
    Arbitrary<UnaryOperator<Machine>> edits() {
        Arbitrary<Integer> axis = Arbitraries.integers().between(0, 5);
        return Arbitraries.oneOf(
                axis.map(i -> onAxis(i, a -> a.withLimits(a.limits().withMax(a.limits().max().withSpeed(a.limits().max().speed() * 1.5))))),
                axis.map(i -> onAxis(i, a -> a.withStation(a.station().withAddress(a.station().address().withNumber(3))))),
                axis.map(i -> onAxis(i, a -> a.withStation(a.station().withOutputs(a.station().outputs().subList(0, Math.max(0, a.station().outputs().size() - 1)))))),
                axis.map(i -> onAxis(i, a -> a.withWiring(DEMO.axes().get(1).wiring()))),
                axis.map(i -> onAxis(i, a -> a.withGearBits(a.gearBits() == 32 ? 16 : 32))),
                axis.map(i -> m -> m.axes().isEmpty() ? m : new AxisEdit.Remove(m.axes().get(i % m.axes().size()).name()).on(m).machine()),
                axis.map(i -> m -> m.axes().size() < 2 ? m : new AxisEdit.Move(m.axes().get(i % m.axes().size()).name(), 0).on(m).machine()),
                Arbitraries.of(Feed.Kind.values()).map(kind -> m -> new AxisEdit.Add("New" + m.axes().size() + kind, kind).on(m).machine()),
                Arbitraries.of(Bus.Family.values()).map(family -> m -> BusFamily.moved(m, family)),
                Arbitraries.of(500, 1000, 2000).map(cycle -> m -> m.withBus(m.bus().withCycleMicros(cycle)).withPlc(m.plc().withTaskIntervalMicros(4000))),
                Arbitraries.of(2000, 4000).map(interval -> m -> m.withPlc(m.plc().withTaskIntervalMicros(interval))),
                Arbitraries.of("360", "0").map(modulo -> onAxis(2, a -> a.endless() ? a.withModulo(new BigDecimal(modulo)) : a)));
    }

    @Property(tries = 60)
    void ofTheChangesIsOfTheWhole(@ForAll("someEdits") List<UnaryOperator<Machine>> edits) {
        Machine machine = DEMO;
        DocumentAdvice advice = DocumentAdvice.of(machine, KNOWN);
        for (UnaryOperator<Machine> edit : edits) {
            Machine changed;
            try {
                changed = edit.apply(machine);
            } catch (rueda.quantity.InvalidEntry taken) {
                continue;
            }
            assertThat(MachineRules.check(changed, machine)).as("what is refused").isEqualTo(MachineRules.check(changed));
            if (!MachineRules.check(changed).isEmpty()) {
                continue;
            }
            DocumentAdvice next = advice.after(changed, KNOWN);
            DocumentAdvice whole = DocumentAdvice.of(changed, KNOWN);
            assertThat(next.all()).isEqualTo(whole.all());
            if (next.all().size() == advice.all().size()) {
                List<DocumentAdvice.StageAdvice> merged = new java.util.ArrayList<>(advice.all());
                for (DocumentAdvice.StageAdvice told : next.changedSince(advice)) {
                    merged.replaceAll(old -> old.stage().equals(told.stage()) && old.axis() == told.axis() ? told : old);
                }
                assertThat(merged).isEqualTo(whole.all());
            }
            machine = changed;
            advice = next;
        }
    }

    @Provide
    Arbitrary<List<UnaryOperator<Machine>>> someEdits() {
        return edits().list().ofMinSize(1).ofMaxSize(8);
    }

    /** A figure changed on one axis tells of that axis alone. */
    @Test
    void oneAxisIsToldAlone() {
        DocumentAdvice before = DocumentAdvice.of(DEMO, KNOWN);
        Axis lift = DEMO.axes().get(1);
        DocumentAdvice after = before.after(DEMO.withAxis(1, lift.withControl(new Control(45, 0.2, 16, 1, 1))), KNOWN);
        assertThat(after.changedSince(before)).isNotEmpty().allMatch(told -> told.axis() == 1);
        assertThat(after.changedSince(after)).isEmpty();
        assertThat(after.changedSince(null)).hasSize(40);
    }
}
