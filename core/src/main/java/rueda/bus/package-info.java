/**
 * Process data as it travels: entries packed to the bit, least significant byte first, in the order of the
 * mapping (CoE, IEC 61158-6-12; CiA 301 for the mapping entry), and the time a frame takes.
 */
package rueda.bus;
