/**
 * Device descriptions: ESI (ETG.2000), EDS and DCF (CiA 306), EDS of ODVA (CIP volume 1, chapter 7), GSDML (ISO 15745-4). Element and key
 * names are from memory of these specifications, proven on files of our own.
 */
package rueda.format.description;
