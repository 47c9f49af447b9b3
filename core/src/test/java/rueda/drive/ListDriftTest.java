package rueda.drive;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.machine.Axis;
import rueda.machine.Cue;
import rueda.machine.Dynamics;
import rueda.machine.MoveEntry;
import rueda.machine.MoveList;
import rueda.machine.MoveList.By;
import rueda.machine.MoveList.Starter;
import rueda.machine.Supervision;
import rueda.machine.Terminal.Function;

/** Closed form: repeated distances drift by 0 counts when they are whole wire units, and by exactly what is announced when they are not. */
class ListDriftTest {

    /** @param held what the drive goes by, wire units of 0.0001°: the distance rounded, halves away from zero */
    @ParameterizedTest
    @CsvSource({"0.0001, 1_000_000, 1", "0.00015, 100_000, 2", "-0.00026, 100_000, -3"})
    void manyMovesEndWhereTheirSumIs(String distance, String moves, long held) {
        int times = Integer.parseInt(moves.replace("_", ""));
        MoveList list = MoveList.of(MoveEntry.goBy(distance).thenGoOn(1, 0), MoveEntry.repeat(0, times, 2), MoveEntry.of(MoveEntry.Kind.WAIT))
                .withStarters(List.of(new Starter(By.EDGE, Cue.of(Function.CUE, Cue.Edge.RISING), 0, 0)));
        Dynamics fast = new Dynamics(120, 200_000, 200_000, 0, 300);
        Axis table = ListBench.table(list, Function.CUE);
        ListBench b = new ListBench(table.withLimits(table.limits().withNormal(fast).withMax(fast)).withSupervision(Supervision.of(1, 5).withPosition(1, 0, 0))).enabled();
        long begin = b.word(DriveObject.POSITION_ACTUAL);
        assertThat(begin).isZero();
        b.input("I2", true);
        b.until(() -> b.list.entry() == 2, 100_000);
        long range = b.axis.wireModulo();
        long place = Math.round(b.drive.demandPosition() * 10_000) % range;
        assertThat(place).isEqualTo(Math.floorMod(times * held, range));
        /* and to the count: the setpoint stands on the count that is nearest to that wire unit */
        double exact = Math.floorMod(times * held, range) * b.axis.scale().countsPerWireUnit().toDouble();
        assertThat(Math.abs(b.drive.demandPosition() / b.axis.scale().unitsPerCount().toDouble() - exact)).isLessThanOrEqualTo(0.5001);
    }
}
