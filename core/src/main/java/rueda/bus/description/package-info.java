/** What a maker tells of a device, whatever file it came from: identity, objects, process data and their rules, clocks, mailbox. */
package rueda.bus.description;
