/**
 * Work that takes a processor for a while. It is done by a few threads of its own, so that however much is asked for, the threads that answer
 * requests stay free; it waits in a queue of bounded length; and it ends when nobody waits for it any more.
 */
package rueda.app.work;
