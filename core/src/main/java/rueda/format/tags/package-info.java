/**
 * Tag tables: CSV (RFC 4180) with columns that are chosen, declarations in Structured Text (IEC 61131-3), XML of IEC 61131-10 and of the
 * PLCopen scheme it grew out of (element names from memory). All become {@link rueda.plc.TagRow}s.
 */
package rueda.format.tags;
