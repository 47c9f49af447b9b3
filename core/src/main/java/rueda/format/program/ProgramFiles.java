package rueda.format.program;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import rueda.format.Text;
import rueda.format.UnreadableFile;
import rueda.machine.Plc;
import rueda.machine.Plc.SourceFile;

/** Reads and writes the texts of a program: {@code .st} files, zips of them, and XML with bodies in Structured Text. */
public final class ProgramFiles {

    /** All texts of a zip together, bytes: a zip may promise less than it unpacks to. */
    private static final int MOST_UNPACKED = 16 << 20;
    private static final List<String> ENDINGS = List.of(".st", ".iecst", ".txt", ".scl", ".exp");

    private ProgramFiles() {
    }

    /**
     * What a file held.
     *
     * @param told what of it could not be taken, sentences
     */
    public record Read(List<SourceFile> files, List<String> told) {
    }

    /**
     * @param name of the file; the format is found by the content
     * @throws UnreadableFile when it is none of the formats, or holds nothing that can be taken
     */
    public static Read read(String name, byte[] content) {
        Text.bounded(content);
        if (content.length > 3 && content[0] == 'P' && content[1] == 'K' && content[2] == 3 && content[3] == 4) {
            return unpacked(content);
        }
        if (Text.decoded(content).stripLeading().startsWith("<")) {
            return ProgramXml.read(content);
        }
        return new Read(List.of(text(name, content)), List.of());
    }

    /**
     * One text.
     *
     * @param path of the file; its last part names the text
     * @throws UnreadableFile when it is too large, or in no encoding that is known
     */
    public static SourceFile text(String path, byte[] content) {
        Text.bounded(content);
        return new SourceFile(named(path), Text.decoded(content).replace("\r\n", "\n").replace('\r', '\n'));
    }

    /** The name is that of a text in Structured Text. */
    public static boolean isText(String path) {
        String lower = path.toLowerCase(Locale.ROOT);
        return ENDINGS.stream().anyMatch(lower::endsWith);
    }

    /** The last part of a path, as a file of a program is called. */
    private static String named(String path) {
        String name = path.replace('\\', '/');
        name = name.substring(name.lastIndexOf('/') + 1).replaceAll("[:*?\"<>|\\p{Cntrl}]", "_").strip();
        for (String ending : ENDINGS) {
            if (name.toLowerCase(Locale.ROOT).endsWith(ending)) {
                name = name.substring(0, name.length() - ending.length());
                break;
            }
        }
        name = name.replaceFirst("^\\.+", "");
        return (name.isBlank() ? "Program" : name.length() > 70 ? name.substring(0, 70) : name) + ".st";
    }

    private static Read unpacked(byte[] content) {
        List<SourceFile> files = new ArrayList<>();
        List<String> told = new ArrayList<>();
        Set<String> names = new HashSet<>();
        int left = MOST_UNPACKED;
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(content), StandardCharsets.UTF_8)) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                String path = entry.getName();
                boolean hidden = path.startsWith("__MACOSX/") || path.substring(path.lastIndexOf('/') + 1).startsWith(".");
                if (entry.isDirectory() || hidden) {
                    continue;
                }
                byte[] bytes = zip.readNBytes(left + 1);
                left -= bytes.length;
                if (left < 0) {
                    throw new UnreadableFile(path, "more than " + (MOST_UNPACKED >> 20) + " MB unpacked", "up to " + (MOST_UNPACKED >> 20) + " MB in all", "take what is needed out of the zip");
                }
                take(path, bytes, files, told, names);
                if (files.size() > Plc.MOST_FILES) {
                    throw new UnreadableFile("File", "more than " + Plc.MOST_FILES + " texts", "up to " + Plc.MOST_FILES, "put several into one");
                }
            }
        } catch (IOException | IllegalArgumentException broken) {
            throw new UnreadableFile("File", "a zip that cannot be unpacked", "a whole zip of .st files", "pack it again");
        }
        if (files.isEmpty()) {
            throw new UnreadableFile("File", "a zip without a text in Structured Text", "files that end with .st", "choose the zip of the program's texts");
        }
        return new Read(files, told);
    }

    private static void take(String path, byte[] bytes, List<SourceFile> files, List<String> told, Set<String> names) {
        if (!isText(path) && !path.toLowerCase(Locale.ROOT).endsWith(".xml")) {
            told.add(path + " was left out: it is no .st file.");
            return;
        }
        if (bytes.length == 0) {
            told.add(path + " was left out: it is empty.");
            return;
        }
        try {
            Read read = read(path, bytes);
            told.addAll(read.told());
            for (SourceFile file : read.files()) {
                String free = file.name();
                for (int i = 2; !names.add(free.toUpperCase(Locale.ROOT)); i++) {
                    free = file.name().substring(0, file.name().length() - 3) + "_" + i + ".st";
                }
                files.add(new SourceFile(free, file.source()));
            }
        } catch (UnreadableFile unreadable) {
            told.add(path + " was left out: " + unreadable.getMessage() + ".");
        }
    }

    /**
     * All texts as XML of IEC 61131-10, with bodies in Structured Text.
     *
     * @param project  its name
     * @param creation time of writing, ISO 8601
     * @throws UnreadableFile when a text has a mistake
     */
    public static byte[] xml(String project, String creation, List<SourceFile> files) {
        return ProgramXmlWriter.write(project, creation, files).getBytes(StandardCharsets.UTF_8);
    }

    /** All texts as a zip; the same texts give the same bytes, and those of the same name a number behind it. */
    public static byte[] zip(List<SourceFile> files) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        Set<String> names = new HashSet<>();
        try (ZipOutputStream zip = new ZipOutputStream(bytes, StandardCharsets.UTF_8)) {
            for (SourceFile file : files) {
                String free = file.name();
                for (int i = 2; !names.add(free); i++) {
                    free = file.name() + "_" + i;
                }
                ZipEntry entry = new ZipEntry(free);
                entry.setLastModifiedTime(FileTime.from(Instant.parse("2026-01-01T00:00:00Z")));
                zip.putNextEntry(entry);
                zip.write(file.source().getBytes(StandardCharsets.UTF_8));
                zip.closeEntry();
            }
        } catch (IOException impossible) {
            throw new IllegalStateException(impossible);
        }
        return bytes.toByteArray();
    }
}
