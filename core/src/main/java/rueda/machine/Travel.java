package rueda.machine;

/**
 * Where the hardware stands, in user units: from the negative hard stop, or, on an endless axis, within one turn of
 * the load.
 *
 * @param length        way between the hard stops; on an endless axis the way after which the cam comes again
 * @param negativeLimit the negative limit switch is active from the stop up to here
 * @param positiveLimit the positive limit switch is active from here to the other stop
 * @param camFrom       reference cam, lower edge
 * @param camTo         reference cam, upper edge
 * @param parkedAt      where the axis stands when the bench is switched on
 */
public record Travel(double length, double negativeLimit, double positiveLimit, double camFrom, double camTo, double parkedAt) {
}
