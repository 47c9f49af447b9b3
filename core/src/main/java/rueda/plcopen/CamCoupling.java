package rueda.plcopen;

import rueda.profile.CamTable;

/**
 * How far a follower is along a cam for what its master has gone since they were coupled.
 * <pre>
 *   x = from + gone/(wire·masterScaling)        place on the cam, of gone wire units of the master
 *   place = slaveScaling·f(x) + slaveOffset     units of the follower, here in its wire units
 * </pre>
 *
 * @param table        the cam
 * @param from         place of the master on the cam when they were coupled
 * @param perMasterWire by how much that grows for a wire unit of the master
 * @param scale        wire units of the follower for a unit of the cam, with its sign
 * @param offset       wire units of the follower
 */
record CamCoupling(CamTable table, double from, double perMasterWire, double scale, double offset) {

    double on(long gone) {
        return from + gone * perMasterWire;
    }

    /** Place of the follower, wire units. */
    long place(long gone) {
        return Math.round(scale * table.place(on(gone)) + offset);
    }

    /** Wire units of the follower for one of the master. */
    double slope(long gone) {
        return scale * table.slope(on(gone)) * perMasterWire;
    }
}
