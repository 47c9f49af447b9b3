/** How JSON is read and written at the edge of the program: strictly, completely, and never anything that is no number. */
package rueda.app.json;
