package rueda.app.program;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import rueda.app.machine.MachineState;
import rueda.app.machine.MachineStore;
import rueda.app.web.Refusals.Conflict;
import rueda.app.web.Refusals.NotFound;
import rueda.app.web.Refusals.RefusedEntries;
import rueda.app.web.Refusals.UnreadableDocument;
import rueda.app.work.Daemons;
import rueda.format.UnreadableFile;
import rueda.format.program.ProgramFiles;
import rueda.machine.Machine;
import rueda.machine.Plc;
import rueda.machine.Plc.SourceFile;

/**
 * Takes the texts of one machine's program from a folder, where another editor changes them: at first all of them, from then on what has changed
 * there. Each time is a revision of the machine that can be undone. Nothing is ever written into the folder.
 *
 * <p>The folder is looked at every half second, because not every file system tells of changes; a text is taken when it has stayed the same for
 * one such time, so that none is taken half written. Sub-folders count, hidden ones do not.
 */
@Component
public class ProgramFolder {

    private static final Logger LOG = LoggerFactory.getLogger(ProgramFolder.class);
    private static final long LOOK_MILLIS = 500;
    private static final int DEEPEST = 8;
    private static final int MOST_LOOKED_AT = 10_000;
    private static final int MOST_TRIES = 5;
    /** More than a program may have, in any encoding. */
    private static final long MOST_BYTES = 4L * Plc.MOST_CHARACTERS;

    /**
     * What a page is told.
     *
     * @param watched  the machine takes its texts from a folder
     * @param folder   its path, empty for none
     * @param takenAt  when texts were taken from it last, null for not yet
     * @param revision of the machine that came of it, 0 for none
     * @param told     what could not be taken, sentences
     */
    public record FolderState(boolean watched, String folder, Instant takenAt, long revision, List<String> told) {
        static final FolderState NONE = new FolderState(false, "", null, 0, List.of());
    }

    /** What a file looked like. */
    private record Look(long size, long changedNanos) {
    }

    private final MachineStore store;
    private final Clock clock;
    private Path folder;
    private long machine;
    /** as it looked the last time, and as it looked when it was taken */
    private Map<String, Look> before = Map.of();
    private Map<String, Look> takenLooks;
    /** texts as they were taken last, by their paths in the folder; null before the first time */
    private Map<String, SourceFile> taken;
    private volatile FolderState state = FolderState.NONE;

    ProgramFolder(MachineStore store, Clock clock) {
        this.store = store;
        this.clock = clock;
    }

    /**
     * Begins to take texts; those that are there now are taken before this returns.
     *
     * @param from what to look at
     * @param name of the machine; null for the only one that there is
     * @throws IllegalArgumentException with a sentence when there is no such folder or machine
     */
    public void follow(Path from, String name) {
        begin(from, name);
        Daemons.named("program-folder", this::lookOn).start();
    }

    void begin(Path from, String name) {
        if (!Files.isDirectory(from)) {
            throw new IllegalArgumentException("The folder of the program " + from + (Files.exists(from) ? " is no folder" : " is not there") + ". Name one with --programs.");
        }
        List<MachineStore.Listed> there = store.all().stream().filter(m -> m.deletedAt() == null).toList();
        List<MachineStore.Listed> meant = there.stream().filter(m -> name == null || m.name().equals(name)).toList();
        if (meant.size() != 1) {
            String names = String.join(", ", there.stream().map(m -> "“" + m.name() + "”").toList());
            throw new IllegalArgumentException((name == null ? "There are several machines" : meant.isEmpty() ? "No machine is called “" + name + "”" : "Several machines are called “" + name + "”")
                    + ": say with --machine which one takes its program from " + from + ". There are: " + names + ".");
        }
        folder = from;
        machine = meant.get(0).id();
        state = new FolderState(true, from.toString(), null, 0, List.of());
        before = looks();
        take(before);
    }

    /** How it is with a machine. */
    public FolderState of(long id) {
        return id == machine ? state : FolderState.NONE;
    }

    private void lookOn() {
        while (true) {
            try {
                Thread.sleep(LOOK_MILLIS);
                look();
            } catch (InterruptedException ended) {
                return;
            } catch (Exception | Error failed) {
                /* the next look may go well: a folder on another computer comes back, memory is free again */
                String sentence = "The folder could not be read: " + failed.getMessage() + ".";
                if (!state.told().equals(List.of(sentence))) {
                    LOG.warn("The folder of the program could not be looked at", failed);
                }
                told(sentence);
                /* when it can be read again it is taken again, which also tells that all is well */
                takenLooks = null;
            }
        }
    }

    private void told(String sentence) {
        state = new FolderState(true, state.folder(), state.takenAt(), state.revision(), List.of(sentence));
    }

    /** Takes what has changed and stayed so since the last look. */
    void look() {
        Map<String, Look> now = looks();
        boolean still = now.equals(before);
        before = now;
        if (still && !now.equals(takenLooks)) {
            take(now);
        }
    }

    private Map<String, Look> looks() {
        Map<String, Look> found = new TreeMap<>();
        look(folder, "", 0, found);
        return found;
    }

    private void look(Path at, String path, int depth, Map<String, Look> found) {
        try (DirectoryStream<Path> entries = Files.newDirectoryStream(at)) {
            for (Path entry : entries) {
                String name = entry.getFileName().toString();
                if (name.startsWith(".")) {
                    continue;
                }
                if (found.size() >= MOST_LOOKED_AT) {
                    throw new IllegalStateException("it holds more than " + MOST_LOOKED_AT + " texts");
                }
                /* a link to a folder may lead back to where it stands */
                if (Files.isDirectory(entry, LinkOption.NOFOLLOW_LINKS)) {
                    if (depth < DEEPEST) {
                        look(entry, path + name + "/", depth + 1, found);
                    }
                } else if (ProgramFiles.isText(name) && Files.isRegularFile(entry)) {
                    BasicFileAttributes attributes = Files.readAttributes(entry, BasicFileAttributes.class);
                    found.put(path + name, new Look(attributes.size(), attributes.lastModifiedTime().to(TimeUnit.NANOSECONDS)));
                }
            }
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    private void take(Map<String, Look> looks) {
        long bytes = looks.values().stream().mapToLong(Look::size).sum();
        if (looks.size() > Plc.MOST_FILES || bytes > MOST_BYTES) {
            takenLooks = looks;
            told("Not taken: the folder holds " + looks.size() + " texts of " + bytes / 1_000_000 + " MB. Allowed: up to " + Plc.MOST_FILES + " texts of " + MOST_BYTES / 1_000_000 + " MB; put them elsewhere, or several into one.");
            return;
        }
        List<String> told = new ArrayList<>();
        Map<String, SourceFile> texts = texts(looks.keySet(), told);
        takenLooks = looks;
        try {
            MachineState saved = save(texts);
            if (texts.isEmpty()) {
                told.add("The folder holds no .st file: the program stays as it is.");
            } else {
                taken = texts;
            }
            state = new FolderState(true, state.folder(), clock.instant(), saved.revision(), List.copyOf(told));
        } catch (RefusedEntries refused) {
            refused.faults().forEach(f -> told.add("Not taken: " + f.label() + " is refused: " + f.value() + ". Allowed: " + f.allowed() + "; " + f.mend() + "."));
            state = new FolderState(true, state.folder(), state.takenAt(), state.revision(), List.copyOf(told));
        } catch (Conflict | NotFound | UnreadableDocument cannot) {
            told.add("Not taken: " + cannot.getMessage());
            state = new FolderState(true, state.folder(), state.takenAt(), state.revision(), List.copyOf(told));
            takenLooks = null;
        }
    }

    /** A page may save at the same time: then once more. */
    private MachineState save(Map<String, SourceFile> texts) {
        for (int i = 1;; i++) {
            MachineState present = store.get(machine);
            Machine document = present.document();
            List<SourceFile> files = texts.isEmpty() ? document.plc().files() : taken == null ? List.copyOf(texts.values()) : merged(document.plc().files(), texts);
            try {
                return files.equals(document.plc().files()) ? present : store.save(machine, present.revision(), document.withPlc(document.plc().withFiles(files)));
            } catch (Conflict another) {
                if (i == MOST_TRIES) {
                    throw another;
                }
            }
        }
    }

    /** Each text by its path; one that cannot be read keeps what it was. */
    private Map<String, SourceFile> texts(Set<String> paths, List<String> told) {
        Map<String, SourceFile> texts = new LinkedHashMap<>();
        Set<String> names = new TreeSet<>(String.CASE_INSENSITIVE_ORDER);
        for (String path : paths) {
            try {
                SourceFile file = ProgramFiles.text(path, Files.readAllBytes(folder.resolve(path)));
                String free = file.name();
                for (int i = 2; !names.add(free); i++) {
                    free = file.name().replaceFirst("\\.st$", "_" + i + ".st");
                }
                texts.put(path, new SourceFile(free, file.source()));
            } catch (IOException | UnreadableFile unreadable) {
                told.add(path + " cannot be read: " + (unreadable instanceof UnreadableFile reason ? reason.getMessage() : "it is locked or gone") + ".");
                if (taken != null && taken.containsKey(path)) {
                    texts.put(path, taken.get(path));
                    names.add(taken.get(path).name());
                }
            }
        }
        return texts;
    }

    /** The machine's texts with what has changed in the folder: what was changed in the page in other texts stays. */
    private List<SourceFile> merged(List<SourceFile> present, Map<String, SourceFile> texts) {
        Map<String, SourceFile> files = new LinkedHashMap<>();
        present.forEach(file -> files.put(file.name(), file));
        taken.forEach((path, file) -> {
            /* gone, or called otherwise because another one of the same name has come or gone */
            if (!texts.containsKey(path) || !texts.get(path).name().equals(file.name())) {
                files.remove(file.name());
            }
        });
        texts.forEach((path, file) -> {
            if (!file.equals(taken.get(path))) {
                files.put(file.name(), file);
            }
        });
        return List.copyOf(files.values());
    }
}
