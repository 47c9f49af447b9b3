package rueda.plcopen;

import rueda.profile.CamTable;

/**
 * A cam table that a program has selected.
 *
 * @param masterAbsolute the place of the master counts, else the table begins where it is
 * @param slaveAbsolute  the table gives places of the follower, else ways from where it is
 */
record CamSelection(CamTable table, boolean masterAbsolute, boolean slaveAbsolute) {
}
