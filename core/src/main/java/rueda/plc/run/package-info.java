/** What compiled code of a program needs while it runs: its memory, function blocks in Java, and the operations that are more than one instruction. */
package rueda.plc.run;
