package rueda.drive;

/** How a drive takes its process data at the sync, and gives it at the end of a bus cycle. No allocation. */
interface CyclicExchange {

    /** Takes the output image into the object dictionary. */
    void latch(byte[] image);

    /** Puts the values of the object dictionary into the input image. */
    void sample(byte[] image);
}
