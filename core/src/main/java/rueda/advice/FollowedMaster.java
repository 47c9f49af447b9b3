package rueda.advice;

import rueda.machine.Axis;
import rueda.machine.Following;
import rueda.machine.Following.Source;
import rueda.machine.Machine;
import rueda.machine.MasterEncoder;
import rueda.quantity.Ratio;

/**
 * What an axis follows, an axis or an encoder, as far as consequences need it.
 *
 * @param name         in words
 * @param unit         of its way
 * @param ratio        units of the follower for one of it, exact
 * @param speed        as it runs usually, units/s, 0 or more
 * @param highestSpeed units/s
 * @param acceleration the hardest with which its speed changes, units/s²
 * @param grain        one step of its value, units
 * @param axis         the axis itself, null for an encoder and for a virtual master
 */
record FollowedMaster(String name, String unit, Ratio ratio, double speed, double highestSpeed, double acceleration, double grain, Axis axis) {

    /** @param follower axis of the machine that follows something */
    static FollowedMaster of(Machine machine, Axis follower) {
        Following f = follower.following();
        if (f.source() == Source.ENCODER) {
            MasterEncoder e = f.encoder();
            Ratio ratio = f.countsPerCount(follower).dividedBy(follower.scale().countsPerUnit()).dividedBy(e.unitsPerCount());
            return new FollowedMaster("the master", e.unit(), ratio, Math.abs(e.speed()), Math.abs(e.speed()), e.acceleration(), e.unitsPerCount().toDouble(), null);
        }
        Axis master = machine.master(f.master()).orElseThrow();
        boolean virtual = machine.virtualMaster(f.master()).isPresent();
        return new FollowedMaster(master.name(), master.unit().symbol(), f.unitsPerUnit(follower, master), master.limits().normal().speed(), master.limits().max().speed(),
                Math.max(master.limits().normal().acceleration(), master.limits().normal().deceleration()), 1.0 / master.scale().wireUnitsPerUnit(), virtual ? null : master);
    }
}
