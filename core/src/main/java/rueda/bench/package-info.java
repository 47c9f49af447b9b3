/**
 * The simulated stand: one deterministic clock over PLC, bus, drives and plant.
 *
 * <p>A bus cycle: the PLC takes the input image, the tasks that are due run, the axes make setpoints and the output
 * image; its bytes travel; every drive latches them at its sync; drives and plants take their sub-steps of 125 µs;
 * the inputs are sampled; the recording takes one sample. So what the program writes acts on the drive in the same
 * bus cycle, and what the drive measures reaches the program one bus cycle later.
 */
package rueda.bench;
