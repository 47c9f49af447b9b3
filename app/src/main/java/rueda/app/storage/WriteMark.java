package rueda.app.storage;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.OptionalLong;

/** How many writes the database has acknowledged, in a file beside it. Thread-safe. */
public final class WriteMark {

    /** Name of the file in the data folder. */
    public static final String FILE = "rueda.writes";

    private final Path file;
    private long written = -1;

    public WriteMark(Path folder) {
        file = folder.resolve(FILE);
    }

    /** The count in the file, empty when there is none that can be read. */
    public OptionalLong read() {
        try {
            String text = Files.readString(file, StandardCharsets.US_ASCII).strip();
            return text.matches("\\d{1,18}") ? OptionalLong.of(Long.parseLong(text)) : OptionalLong.empty();
        } catch (IOException none) {
            return OptionalLong.empty();
        }
    }

    /**
     * Notes a count that is on disk; a lower one than before is passed over. The file is exchanged as a whole, so that a kill leaves the
     * old one or the new one.
     */
    public synchronized void note(long count) throws IOException {
        if (count <= written) {
            return;
        }
        Path next = file.resolveSibling(FILE + ".new");
        try (FileChannel out = FileChannel.open(next, StandardOpenOption.CREATE, StandardOpenOption.TRUNCATE_EXISTING, StandardOpenOption.WRITE)) {
            ByteBuffer bytes = ByteBuffer.wrap((count + "\n").getBytes(StandardCharsets.US_ASCII));
            while (bytes.hasRemaining()) {
                out.write(bytes);
            }
            out.force(true);
        }
        Files.move(next, file, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        written = count;
    }

    /** Forgets the count: the database beside it is another one now. */
    public synchronized void forget() throws IOException {
        Files.deleteIfExists(file);
        written = -1;
    }
}
