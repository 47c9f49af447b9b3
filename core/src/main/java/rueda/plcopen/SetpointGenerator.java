package rueda.plcopen;

/** Makes the setpoint of an axis, a bus cycle at a time, from the one that was left by whoever made it before. */
interface SetpointGenerator {

    /** One bus cycle. */
    void step();

    /** The motion as it was ordered is at its end; what goes on until something else is ordered has none. */
    boolean ended();

    /** Where the axis would be in a while if nothing else were ordered. @param ahead s  @param into position, velocity and acceleration then */
    void lookAhead(double ahead, double[] into);
}
