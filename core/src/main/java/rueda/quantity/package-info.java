/**
 * Exact ratios and scales between user units, the drive's wire units and encoder counts.
 *
 * <p>A position passes four scales on its way: user units (a {@code double} at the edge only), wire units
 * (an integer number of the smallest decimal of the user unit), encoder counts ({@code long}) and motor
 * turns. The factors between them are products of whole numbers, so they are kept as reduced fractions and
 * nothing drifts however often an axis turns.
 */
package rueda.quantity;
