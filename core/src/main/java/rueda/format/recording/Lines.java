package rueda.format.recording;

import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.Reader;
import rueda.format.UnreadableFile;
import rueda.format.recording.RecordingLayout.Encoding;

/** A text line by line, bounded in their length. Bytes that are no characters become marks, which no number has. Not thread-safe. */
final class Lines {

    private static final int LONGEST = 1 << 20;

    private final Reader reader;
    private final char[] buffer = new char[1 << 16];
    private int at;
    private int filled;
    private long number;
    private boolean skipFeed;

    Lines(InputStream bytes, Encoding encoding) {
        reader = new InputStreamReader(bytes, encoding.charset());
    }

    /** Number of the line that was read last, from 1. */
    long number() {
        return number;
    }

    /** @return null at the end  @throws UnreadableFile when a line is longer than any recorder writes */
    String next() throws IOException {
        StringBuilder parts = null;
        while (true) {
            if (at == filled) {
                filled = reader.read(buffer);
                at = 0;
                if (filled <= 0) {
                    filled = 0;
                    return parts == null ? null : ended(parts.toString());
                }
            }
            if (skipFeed && buffer[at] == '\n') {
                at++;
            }
            skipFeed = false;
            int from = at;
            while (at < filled && buffer[at] != '\n' && buffer[at] != '\r') {
                at++;
            }
            if (at < filled) {
                String line = parts == null ? new String(buffer, from, at - from) : parts.append(buffer, from, at - from).toString();
                skipFeed = buffer[at] == '\r';
                at++;
                return ended(line);
            }
            parts = parts == null ? new StringBuilder() : parts;
            parts.append(buffer, from, at - from);
            if (parts.length() > LONGEST) {
                throw new UnreadableFile("line " + (number + 1), parts.substring(0, 40), "lines of up to " + LONGEST + " characters", "choose a file of text with a line for each sample");
            }
        }
    }

    private String ended(String line) {
        number++;
        return number == 1 && line.startsWith("\uFEFF") ? line.substring(1) : line;
    }
}
