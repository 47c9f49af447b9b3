/**
 * The simulated drive: object dictionary, power drive system state machine, cyclic synchronous position and
 * homing modes of IEC 61800-7-201 (CiA 402-2), with the position, velocity and torque loops of a servo drive.
 */
package rueda.drive;
