/** Signals of runs and of recordings alike: drawn, measured, and laid over one another. */
package rueda.app.traces;
