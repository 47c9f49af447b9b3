/**
 * Frames as they stand on the wire, byte by byte, from the process images of one cycle: one class a bus family. They are made
 * for recordings of bus traffic; the bench itself carries the same process images without frames around them.
 */
package rueda.bus.wire;
