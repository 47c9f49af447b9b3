/** Recordings that are brought in from elsewhere: files on their way, what is kept of them, and signals of runs and recordings as they are drawn. */
package rueda.app.recording;
