/**
 * EtherCAT network information, ETG.2100 (element names from memory): what a master needs to start and run the network.
 *
 * <p>{@link rueda.format.eni.NetworkInformation} holds what the file says, in records; {@link rueda.format.eni.StationCommands} makes the
 * orders that lead a station through its states (ETG.1000.6, EtherCAT state machine); {@link rueda.format.eni.EniFile} writes and reads the XML.
 */
package rueda.format.eni;
