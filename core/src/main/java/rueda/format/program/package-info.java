/** Programs of the PLC in files: Structured Text, one or many in a zip, and the XML of IEC 61131-10 and of the older PLCopen scheme. */
package rueda.format.program;
