/** EtherCAT network information, ETG.2100 (element names from memory): what a master needs to start and run the network. */
package rueda.format.eni;
