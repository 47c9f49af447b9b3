/**
 * Readers and writers of open formats, a package each. A reader refuses what it cannot read with a {@link rueda.format.UnreadableFile}
 * that says where, and reports in {@link rueda.format.Reading#remarks} what it could read and did not understand.
 */
package rueda.format;
