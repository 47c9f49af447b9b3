package rueda.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rueda.machine.Bus.IpNetwork;
import rueda.machine.Plc.DeclaredTag;
import rueda.machine.Station.Entry;
import rueda.machine.Station.StartWrite;
import rueda.machine.Station.Transition;

/** Refused entries of bus and stations: each names its field, and says what is allowed and what to do. */
class StationRulesTest {

    private static final Machine DEMO = DemoMachine.create();
    private static final Station STATION = DEMO.axes().get(0).station();

    private static List<String> fields(Machine machine) {
        return MachineRules.check(machine).stream().peek(f -> assertThat(List.of(f.label(), f.allowed(), f.mend())).doesNotContain("")).map(EntryFault::field).toList();
    }

    private static List<String> fields(Station station) {
        return fields(DEMO.withAxis(0, DEMO.axes().get(0).withStation(station))).stream().map(f -> f.replace("/axes/0/station", "")).toList();
    }

    private static Station with(Entry entry) {
        return STATION.withEntries(List.of(entry), STATION.inputs());
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "192.168.40", "192.168.40.256", "192.168.40.1.2", "a.b.c.d", "192.168.40.-1", "1921.168.40.1"})
    void addressesOfFourNumbers(String address) {
        assertThat(fields(STATION.withAddress(STATION.address().withIp(new IpNetwork(address, "255.255.255.0", ""))))).containsExactly("/address/ip/address");
        assertThat(fields(DEMO.withBus(new Bus(Bus.Family.PROFINET, 1000, 100_000, false, new IpNetwork(address, "255.255.255.0", ""), Bus.Clock.USUAL)))).containsExactly("/bus/plc/address");
    }

    @ParameterizedTest
    @ValueSource(strings = {"255.0.255.0", "0.0.0.1", "255.255.255.253"})
    void masksOfOnesThenZeros(String mask) {
        assertThat(fields(STATION.withAddress(STATION.address().withIp(new IpNetwork("192.168.40.11", mask, ""))))).containsExactly("/address/ip/mask");
    }

    @Test
    void entriesWithinBounds() {
        Entry good = STATION.outputs().get(2);
        assertThat(fields(with(good))).isEmpty();
        assertThat(fields(with(good.withPdo(9)))).containsExactly("/outputs/0/pdo");
        assertThat(fields(with(good.withScale("mm", BigDecimal.ZERO)))).containsExactly("/outputs/0/factor");
        assertThat(fields(with(good.withScale("a very long unit", BigDecimal.TEN)))).containsExactly("/outputs/0/unit");
        assertThat(fields(with(good.withTag("two words", "WHAT")))).containsExactly("/outputs/0/tag", "/outputs/0/tagType");
        assertThat(fields(with(new Entry(0x7_0000, 300, 65, "", "")))).containsExactly("/outputs/0/bits", "/outputs/0/object", "/outputs/0/subIndex");
    }

    @Test
    void writesWithinTheirWidth() {
        assertThat(fields(STATION.withStartWrites(List.of(new StartWrite(0x6072, 0, 16, 70_000, Transition.PREOP_TO_SAFEOP, "", true))))).containsExactly("/startWrites/0/value");
        assertThat(fields(STATION.withStartWrites(List.of(new StartWrite(0x6072, 0, 12, 7, Transition.PREOP_TO_SAFEOP, "", true))))).containsExactly("/startWrites/0/bits");
        assertThat(fields(STATION.withStartWrites(List.of(new StartWrite(0, 255, 16, 7, null, null, true))))).containsExactly("/startWrites/0/object", "/startWrites/0/subIndex", "/startWrites/0/transition", "/startWrites/0/comment");
    }

    @Test
    void theBusWithinBounds() {
        assertThat(fields(DEMO.withBus(DEMO.bus().withCycleMicros(130)))).contains("/bus/cycleMicros");
        assertThat(fields(DEMO.withBus(DEMO.bus().withFamily(Bus.Family.CANOPEN, 1000, 333)))).containsExactly("/bus/kiloBits");
        assertThat(fields(DEMO.withBus(DEMO.bus().withClock(new Bus.Clock("", 2000, -1))))).containsExactly("/bus/clock/shiftMicros", "/bus/clock/windowNanos");
    }

    @Test
    void declaredTagsEachOnce() {
        assertThat(fields(DEMO.withPlc(DEMO.plc().withTags(List.of(new DeclaredTag("Lamp", "BOOL"), new DeclaredTag("LAMP", "BOOL"), new DeclaredTag("X", "TEXT")))))).containsExactly("/plc/tags/1/name", "/plc/tags/2/type");
    }
}
