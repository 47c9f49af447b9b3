/** XML read with bounds: no document type, no external entities, limited size, depth and number of elements. */
package rueda.format.xml;
