package rueda.app.machine;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import rueda.bench.MachineSignals;
import rueda.bench.Signal;
import rueda.format.Text;
import rueda.format.recording.RecordingFile;
import rueda.machine.Machine;
import rueda.machine.Plc;
import rueda.recording.Brought;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * A machine as a folder: the document without the texts of its program in {@value #DOCUMENT}, and each text in a file of its own. Entries stand in the order of
 * the document, one to a line, so that a version control system shows what has changed and nothing else.
 */
public final class MachineFolder {

    public static final String DOCUMENT = "machine.json";

    private MachineFolder() {
    }

    /**
     * The machine of a file, or of a folder.
     *
     * @throws IOException              when it cannot be read
     * @throws IllegalArgumentException when it is no machine, or a text is missing
     * @throws rueda.format.UnreadableFile for a text in no known encoding
     */
    public static Machine read(Path path) throws IOException {
        if (!Files.isDirectory(path)) {
            return MachineJson.readFile(Text.decoded(Files.readAllBytes(path)));
        }
        Path folder = path.toAbsolutePath().normalize();
        Path document = folder.resolve(DOCUMENT);
        if (!Files.isRegularFile(document)) {
            throw new IllegalArgumentException("the folder has no " + DOCUMENT + ".");
        }
        JsonNode tree = MachineJson.readTree(Text.decoded(Files.readAllBytes(document)));
        for (JsonNode file : tree.at("/plc/files")) {
            if (file instanceof ObjectNode object && !object.has("source") && object.path("name").isString()) {
                object.put("source", text(folder, object.get("name").asString()));
            }
        }
        return MachineJson.readFile(tree.toString());
    }

    /** Folder of the recordings, each a CSV under its name. */
    private static final String RECORDINGS = "recordings";
    /** Samples of all recordings, in memory. */
    private static final long MOST_SAMPLES = 16_000_000;

    /**
     * The recordings that proofs of a machine are held against: those in the folder {@code recordings} of a machine's folder. None for a machine's file.
     *
     * @throws IOException when one cannot be read
     * @throws rueda.format.UnreadableFile for one that is no recording
     */
    public static Brought.Shelf recordings(Path path, Machine machine) throws IOException {
        Path folder = path.toAbsolutePath().normalize().resolve(RECORDINGS);
        if (!Files.isDirectory(folder)) {
            return Brought.Shelf.EMPTY;
        }
        List<Signal> signals = MachineSignals.of(machine);
        List<Brought> all = new ArrayList<>();
        try (Stream<Path> files = Files.list(folder)) {
            for (Path file : files.filter(f -> f.getFileName().toString().toLowerCase(java.util.Locale.ROOT).endsWith(".csv")).sorted().toList()) {
                all.add(RecordingFile.read(file, machine, signals, MOST_SAMPLES));
            }
        }
        return Brought.Shelf.of(all);
    }

    private static String text(Path folder, String name) throws IOException {
        Path file = plain(folder, name);
        if (!Files.isRegularFile(file)) {
            throw new IllegalArgumentException("the program file " + name + " is not in the folder.");
        }
        return Text.decoded(Files.readAllBytes(file)).replace("\r\n", "\n");
    }

    /** A file of the folder, and of no other. @param folder absolute, normalized */
    private static Path plain(Path folder, String name) {
        Path file = folder.resolve(name).normalize();
        if (name.isBlank() || !folder.equals(file.getParent()) || name.equalsIgnoreCase(DOCUMENT)) {
            throw new IllegalArgumentException("the program file “" + name + "” cannot stand in a folder under this name.");
        }
        return file;
    }

    /**
     * Writes a machine into a folder; texts that it does not have any more are removed.
     *
     * @throws IllegalArgumentException when a text cannot be a file of its name
     */
    public static void write(Machine machine, Path into) throws IOException {
        Path folder = into.toAbsolutePath().normalize();
        Files.createDirectories(folder);
        Set<Path> written = new HashSet<>();
        ObjectNode tree = (ObjectNode) MachineJson.tree(machine).deepCopy();
        List<Plc.SourceFile> files = machine.plc().files();
        for (Plc.SourceFile file : files) {
            plain(folder, named(file));
        }
        for (int i = 0; i < files.size(); i++) {
            Path file = plain(folder, named(files.get(i)));
            Files.writeString(file, files.get(i).source(), StandardCharsets.UTF_8);
            written.add(file);
            ObjectNode entry = (ObjectNode) tree.at("/plc/files/" + i);
            entry.remove("source");
            entry.put("name", named(files.get(i)));
        }
        Files.writeString(folder.resolve(DOCUMENT), MachineJson.pretty(tree) + "\n", StandardCharsets.UTF_8);
        try (Stream<Path> old = Files.list(folder)) {
            for (Path file : old.filter(f -> f.getFileName().toString().toLowerCase(java.util.Locale.ROOT).endsWith(".st")).toList()) {
                if (!written.contains(file)) {
                    Files.delete(file);
                }
            }
        }
    }

    private static String named(Plc.SourceFile file) {
        return file.name().toLowerCase(java.util.Locale.ROOT).endsWith(".st") ? file.name() : file.name() + ".st";
    }
}
