/**
 * The types of IEC 61131-3, 6.4: elementary ones ({@link rueda.plc.type.Type}) and those that are made of others. A value of a task lies in
 * cells of 64 bits; a type knows how many it takes, and an element or a member lies at a fixed distance from the first one.
 */
package rueda.plc.type;
