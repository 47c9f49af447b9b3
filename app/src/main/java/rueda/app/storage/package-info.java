/**
 * The database as a thing that can fail: where it lies, whether there is room, what was acknowledged, and a copy to go back to.
 *
 * <p>Every writing transaction counts itself in the table {@code write_count}; when it is on disk, the count goes to a small file beside
 * the database ({@link rueda.app.storage.WriteMark}). A database that has counted less than the file was cut off or exchanged: the start
 * says so instead of going on with what is left.
 */
package rueda.app.storage;
