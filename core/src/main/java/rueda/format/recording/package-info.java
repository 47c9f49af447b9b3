/**
 * Recordings of other makers' recorders, as lines of text with a value for each column: any separator, decimal comma or point, words before the headings, a line of
 * units, times in many forms or a rate. What the file looks like is guessed from its begin ({@link rueda.format.recording.LayoutGuess}), shown, changed where the guess
 * is wrong, and then read in one pass ({@link rueda.format.recording.RecordingReader}), whatever its length.
 */
package rueda.format.recording;
