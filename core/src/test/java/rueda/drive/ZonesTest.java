package rueda.drive;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.MoveList.Passing;
import rueda.machine.MoveList.Zone;

/** That zones are looked at only where something can change makes no difference: held against their definition, looked at everywhere. */
class ZonesTest {

    /** The definition: in from … to; once in, until it is left by the hysteresis; with a direction only entered in that. */
    private static boolean inside(Zone zone, boolean was, double place, double speed, double modulo) {
        boolean may = was || zone.passing() == Passing.BOTH || (zone.passing() == Passing.FORWARD ? speed > 0 : speed < 0);
        double low = zone.from() - (was ? zone.hysteresis() : 0);
        double high = zone.to() + (was ? zone.hysteresis() : 0);
        if (modulo == 0) {
            return may && place >= low && place <= high;
        }
        return may && wrapped(place - low, modulo) <= wrapped(zone.to() - zone.from(), modulo) + (was ? 2 * zone.hysteresis() : 0);
    }

    private static double wrapped(double value, double modulo) {
        return value - Math.floor(value / modulo) * modulo;
    }

    @Property(tries = 300)
    void looksWhereSomethingCanChange(@ForAll long seed, @ForAll boolean endless) {
        Random random = new Random(seed);
        Axis axis = DemoMachine.create().axis(endless ? "Table" : "Shuttle").orElseThrow();
        double span = endless ? 360 : 1000;
        List<Zone> zones = new ArrayList<>();
        for (int i = 0; i <= random.nextInt(4); i++) {
            /* whole units and halves, so that no place visited lies on a bound */
            double from = Math.floor(random.nextDouble() * span) + 0.5;
            double to = endless ? Math.floor(random.nextDouble() * span) + 0.5 : from + Math.floor(random.nextDouble() * 200);
            zones.add(new Zone(from, to, random.nextInt(3), Passing.values()[random.nextInt(3)], false));
        }
        axis = axis.withMoves(axis.moves().withZones(zones));
        ObjectDictionary dictionary = new ObjectDictionary();
        ParameterWrites.positionFactors(dictionary, axis.scale());
        DriveUnits units = new DriveUnits(axis, ParameterWrites.gear(dictionary, axis.gearBits()), 125e-6, 8);
        Reference reference = new Reference(axis, units);
        Zones observed = new Zones(axis, reference, units);
        boolean[] was = new boolean[zones.size()];
        double place = span / 2;
        for (int step = 0; step < 400; step++) {
            double way = Math.rint((random.nextDouble() - 0.5) * (random.nextInt(10) == 0 ? 300 : 8));
            place += way;
            double speed = Math.signum(way) * 10;
            observed.observe(reference.countsAt(Math.round(place * units.wireUnitsPerUnit)), speed);
            for (int i = 0; i < was.length; i++) {
                was[i] = inside(zones.get(i), was[i], place, speed, endless ? 360 : 0);
                assertThat(observed.on(i)).as("%s at %s, step %d", zones.get(i), place, step).isEqualTo(was[i]);
            }
        }
    }
}
