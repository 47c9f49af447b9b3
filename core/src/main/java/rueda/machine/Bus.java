package rueda.machine;

/**
 * The fieldbus: EtherCAT with CoE.
 *
 * @param cycleMicros bus cycle in µs, a multiple of 125, 250 to 8000
 */
public record Bus(int cycleMicros) {
}
