/** Recorded bus traffic as pcapng (PCAP Next Generation Capture File Format, IETF draft): read by every protocol analyser. */
package rueda.format.pcapng;
