/**
 * Process data as it travels.
 *
 * <p>{@link rueda.bus.BusFamily} has one class a fieldbus, which decides byte order, alignment, limits, words, the usual process
 * data and the time its frames take. {@link rueda.bus.ProcessDataLayout} packs values to the bit in the order of the mapping
 * (CoE, IEC 61158-6-12; CiA 301 for the mapping entry). {@link rueda.bus.StandardTelegram} and
 * {@link rueda.bus.ProfiDriveSignal} are those of IEC 61800-7-203. {@link rueda.bus.wire} makes the frames, byte by byte.
 */
package rueda.bus;
