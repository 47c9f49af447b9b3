package rueda.bench;

import rueda.machine.Axis;

/** The PLC's side of the process data of one axis: what its motion control reads and writes. No allocation. */
interface AxisWords {

    /** The controlword of a quick stop. */
    int QUICK_STOP = 0x02;

    /** Takes statusword, position and mode out of the input image. */
    void read(byte[] inputs);

    /** What is read and written depends on nothing but the axis and the image: the same again changes nothing. */
    boolean onlyOfThisCycle();

    /** Takes values that act at once. */
    default void take(Axis parameters) {
    }

    /** Number of the entry that holds the control word, −1 for none. */
    int controlEntry();

    /** Number of the entry that holds the status word, −1 for none. */
    int statusEntry();

    /** Orders a quick stop and leaves everything else as it is. */
    void stop(byte[] outputs);

    /** Puts controlword, setpoint and mode into the output image. @param halted a quick stop is ordered instead */
    void write(byte[] outputs, boolean halted);
}
