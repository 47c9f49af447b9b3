package rueda.app.recording;

import java.io.BufferedInputStream;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import jakarta.persistence.EntityManager;
import org.springframework.context.event.ContextRefreshedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import rueda.app.machine.MachineJson;
import rueda.app.machine.MachineStore;
import rueda.app.web.Refusals.NotFound;
import rueda.bench.CalculationCancelled;
import rueda.bench.MachineSignals;
import rueda.bench.Signal;
import rueda.format.recording.Assignments;
import rueda.format.recording.LayoutGuess;
import rueda.format.recording.RecordingLayout;
import rueda.format.recording.RecordingReader;
import rueda.machine.DemoMachine;
import rueda.machine.Expectation;
import rueda.machine.Machine;
import rueda.machine.Proof;
import rueda.quantity.InvalidEntry;
import rueda.recording.Brought;
import rueda.recording.Overview;
import rueda.recording.Sampled;

/**
 * Keeps recordings, of any length: a segment of each column after the other, so that memory stays bounded. Until its last segment is there a recording is not to be seen;
 * one that was cut off is taken away at the next start. Thread-safe.
 */
@Service
public class RecordingStore {

    static final int LONGEST_NAME = 200;
    private static final int MOST_OF_A_MACHINE = 200;
    private static final int LONGEST_REMARKS = 2000;
    /** Samples of segments that are kept in memory: 64 MB. */
    private static final int MOST_CACHED = 8 << 20;
    private static final int MOST_OVERVIEWS_CACHED = 200_000;
    private static final int TOLD_EVERY_ROWS = 20_000;

    private final MachineStore machines;
    private final Recordings recordings;
    private final RecordedSignals signals;
    private final RecordedSegments segments;
    private final EntityManager entities;
    private final TransactionTemplate write;
    private final Clock clock;
    private final Cache<Place, double[]> values = Caffeine.newBuilder().maximumWeight(MOST_CACHED).weigher((Place place, double[] samples) -> samples.length).build();
    private final Cache<Place, long[]> times = Caffeine.newBuilder().maximumWeight(MOST_CACHED / 4).weigher((Place place, long[] samples) -> samples.length).build();
    private final Cache<Place, Overview> overviews = Caffeine.newBuilder().maximumWeight(MOST_OVERVIEWS_CACHED).weigher((Place place, Overview overview) -> 1 + overview.blocks()).build();

    /** @param number of the segment, 0 for an overview */
    private record Place(long recording, int column, int number) {
    }

    RecordingStore(MachineStore machines, Recordings recordings, RecordedSignals signals, RecordedSegments segments, EntityManager entities, PlatformTransactionManager transactions, Clock clock) {
        this.machines = machines;
        this.recordings = recordings;
        this.signals = signals;
        this.segments = segments;
        this.entities = entities;
        this.write = new TransactionTemplate(transactions);
        this.clock = clock;
        machines.onDemo(this::bringDemo);
    }

    /** The demo's recording of an invented real cell, read as anybody's would be. */
    private void bringDemo(long machineId) {
        Machine machine = machines.get(machineId).document();
        try (InputStream file = DemoMachine.recording()) {
            byte[] content = file.readAllBytes();
            RecordingLayout layout = Assignments.suggested(LayoutGuess.guess(content), machine, MachineSignals.of(machine));
            bring(machineId, "Shuttle in the cellar", DemoMachine.RECORDING, new ByteArrayInputStream(content), "", layout, bytes -> true);
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
    }

    @EventListener(ContextRefreshedEvent.class)
    void takeAwayWhatWasCutOff() {
        recordings.findByCompleteFalse().forEach(recording -> takeAway(recording.id));
    }

    /** Told while one is read. */
    interface Progress {
        /** @param bytes that have been read  @return false to end it */
        boolean read(long bytes);
    }

    /**
     * Reads a file and keeps it.
     *
     * @throws InvalidEntry when the name is taken or the layout cannot be
     * @throws rueda.format.UnreadableFile naming line and column
     * @throws CalculationCancelled when the progress says so
     */
    RecordingView bring(long machineId, String name, IncomingFiles.Incoming file, String headings, RecordingLayout layout, Progress progress) {
        try (InputStream raw = Files.newInputStream(file.path)) {
            return bring(machineId, name, file.name, raw, headings, layout, progress);
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    private RecordingView bring(long machineId, String name, String fileName, InputStream raw, String headings, RecordingLayout layout, Progress progress) {
        String called = free(machineId, name, -1);
        RecordingEntity recording = write.execute(status -> recordings.save(new RecordingEntity(machineId, called, fileName, clock.instant(), headings, MachineJson.write(layout))));
        try (Counted bytes = new Counted(new BufferedInputStream(raw, 1 << 16))) {
            Segmented segmented = new Segmented(recording.id, layout.columns().size(), () -> {
                if (!progress.read(bytes.count)) {
                    throw new CalculationCancelled();
                }
            });
            RecordingReader.Taken taken = RecordingReader.read(bytes, layout, segmented);
            segmented.end();
            write.executeWithoutResult(status -> complete(recording.id, layout, segmented, taken));
        } catch (IOException failed) {
            takeAway(recording.id);
            throw new UncheckedIOException(failed);
        } catch (RuntimeException | Error refused) {
            takeAway(recording.id);
            throw refused;
        }
        return view(recording.id);
    }

    private void complete(long id, RecordingLayout layout, Segmented segmented, RecordingReader.Taken taken) {
        for (int c = 0; c < layout.columns().size(); c++) {
            RecordingLayout.ColumnUse use = layout.columns().get(c);
            signals.save(new RecordedSignalEntity(id, c, use.signal().strip(), use.unit(), Segments.deflated(segmented.overviews[c].build().bytes())));
        }
        RecordingEntity whole = recordings.findById(id).orElseThrow();
        whole.samples = taken.rows();
        whole.begins = segmented.begins;
        whole.ends = segmented.ends;
        String remarks = String.join("\n", taken.remarks());
        whole.remarks = remarks.substring(0, Math.min(LONGEST_REMARKS, remarks.length()));
        whole.complete = true;
        recordings.save(whole);
    }

    private static final class Counted extends java.io.FilterInputStream {
        private long count;

        Counted(InputStream in) {
            super(in);
        }

        @Override
        public int read() throws IOException {
            int one = super.read();
            count += one >= 0 ? 1 : 0;
            return one;
        }

        @Override
        public int read(byte[] into, int from, int length) throws IOException {
            int read = super.read(into, from, length);
            count += Math.max(0, read);
            return read;
        }
    }

    /** Collects rows until a segment of each column is full, and stores it. */
    private final class Segmented implements RecordingReader.Row {
        private final long recording;
        private final Runnable told;
        private final long[] nanos = new long[RecordedSegmentEntity.ROWS];
        private final double[][] columns;
        private final Overview.Builder[] overviews;
        private int filled;
        private int number;
        private int untilTold;
        private long begins;
        private long ends;
        private boolean begun;

        Segmented(long recording, int width, Runnable told) {
            this.recording = recording;
            this.told = told;
            columns = new double[width][RecordedSegmentEntity.ROWS];
            overviews = new Overview.Builder[width];
            Arrays.setAll(overviews, c -> new Overview.Builder());
        }

        @Override
        public void take(long time, double[] row) {
            begins = begun ? begins : time;
            begun = true;
            ends = time;
            nanos[filled] = time;
            for (int c = 0; c < columns.length; c++) {
                columns[c][filled] = row[c];
                overviews[c].take(time, row[c]);
            }
            if (++filled == RecordedSegmentEntity.ROWS) {
                store();
            }
            if (--untilTold < 0) {
                untilTold = TOLD_EVERY_ROWS;
                told.run();
            }
        }

        void end() {
            if (filled > 0) {
                store();
            }
        }

        private void store() {
            write.executeWithoutResult(status -> {
                keep(RecordedSegmentEntity.TIMES, Segments.times(nanos, filled));
                for (int c = 0; c < columns.length; c++) {
                    keep(c, Segments.values(columns[c], filled));
                }
            });
            number++;
            filled = 0;
        }

        private void keep(int place, byte[] content) {
            entities.detach(segments.saveAndFlush(new RecordedSegmentEntity(recording, place, number, content)));
        }
    }

    /** A name that no other recording of the machine has. @param but this one */
    private String free(long machineId, String name, long but) {
        machines.get(machineId);
        String called = name == null ? "" : name.strip();
        if (called.isEmpty() || called.length() > LONGEST_NAME) {
            throw new InvalidEntry("name", called.isEmpty() ? "empty" : called.length() + " characters", "1 to " + LONGEST_NAME + " characters", "name the recording");
        }
        if (recordings.findFirstByMachineIdAndNameIgnoreCaseAndCompleteTrue(machineId, called).filter(other -> other.id != but).isPresent()) {
            throw new InvalidEntry("name", called, "a name that no other recording has", "choose another name");
        }
        if (but < 0 && recordings.countByMachineIdAndCompleteTrue(machineId) >= MOST_OF_A_MACHINE) {
            throw new InvalidEntry("recordings", "one more", "up to " + MOST_OF_A_MACHINE, "delete one that is not needed");
        }
        return called;
    }

    /** The layout with which a file with the same headings was read last. */
    Optional<RecordingLayout> remembered(long machineId, String headings) {
        return recordings.findFirstByMachineIdAndHeadingsAndCompleteTrueOrderByIdDesc(machineId, headings).map(last -> MachineJson.read(last.layout, RecordingLayout.class));
    }

    /** The newest first. */
    @Transactional(readOnly = true)
    public List<RecordingView> all(long machineId) {
        Set<String> known = known(machines.get(machineId).document());
        return recordings.findByMachineIdAndCompleteTrueOrderByIdDesc(machineId).stream().map(recording -> view(recording, known)).toList();
    }

    /** @throws NotFound when there is none */
    @Transactional(readOnly = true)
    public RecordingView view(long id) {
        RecordingEntity recording = entity(id);
        return view(recording, known(machines.get(recording.machineId).document()));
    }

    private RecordingView view(RecordingEntity r, Set<String> known) {
        return new RecordingView(r.id, r.name, r.fileName, r.broughtAt, r.samples, r.begins * 1e-9, r.ends * 1e-9,
                signals.names(r.id).stream().map(s -> new RecordingView.RecordedColumn(s.name(), s.unit(), known.contains(s.name().toUpperCase(Locale.ROOT)))).toList(),
                r.remarks.isEmpty() ? List.of() : List.of(r.remarks.split("\n")));
    }

    private static Set<String> known(Machine machine) {
        return MachineSignals.of(machine).stream().map(signal -> signal.name().toUpperCase(Locale.ROOT)).collect(Collectors.toSet());
    }

    private RecordingEntity entity(long id) {
        return recordings.findById(id).filter(recording -> recording.complete).orElseThrow(() -> new NotFound("recording " + id));
    }

    RecordingView rename(long id, String name) {
        long machineId = entity(id).machineId;
        String called = free(machineId, name, id);
        write.executeWithoutResult(status -> {
            RecordingEntity recording = entity(id);
            recording.name = called;
            recordings.save(recording);
        });
        return view(id);
    }

    void forget(long id) {
        takeAway(entity(id).id);
    }

    private void takeAway(long id) {
        write.executeWithoutResult(status -> {
            segments.forget(id);
            signals.forget(id);
            recordings.deleteById(id);
        });
        values.asMap().keySet().removeIf(place -> place.recording() == id);
        times.asMap().keySet().removeIf(place -> place.recording() == id);
        overviews.asMap().keySet().removeIf(place -> place.recording() == id);
    }

    /** A signal of a recording. @param name in any case  @throws NotFound when it has none of this name */
    @Transactional(readOnly = true)
    public Stored signal(long id, String name) {
        RecordingEntity recording = entity(id);
        return signals.names(id).stream().filter(signal -> signal.name().equalsIgnoreCase(name)).findFirst().map(signal -> new Stored(id, recording.samples, signal))
                .orElseThrow(() -> new NotFound("signal " + name + " in the recording " + recording.name));
    }

    /** Key of the machine that it is of. */
    @Transactional(readOnly = true)
    public long machineOf(long id) {
        return entity(id).machineId;
    }

    /** A recording by its key. @throws NotFound when there is none */
    @Transactional(readOnly = true)
    public Brought brought(long id) {
        return brought(entity(id));
    }

    private Brought brought(RecordingEntity recording) {
        return new Brought(recording.name, signals.names(recording.id).stream().map(s -> new Brought.Column(s.name(), s.unit(), new Stored(recording.id, recording.samples, s))).toList());
    }

    /** The signals of the recording of a machine, by its name in any case. */
    @Transactional(readOnly = true)
    public Optional<Brought> named(long machineId, String name) {
        return recordings.findFirstByMachineIdAndNameIgnoreCaseAndCompleteTrue(machineId, name).map(this::brought);
    }

    /** Samples of recordings that proofs are held against: 128 MB with their times. */
    private static final long MOST_HELD = 8_000_000;

    /**
     * The recordings that a proof names, in memory: what computes with them may be interrupted, and must not be while it reads the database.
     *
     * @throws InvalidEntry when they are too long
     */
    @Transactional(readOnly = true)
    public Brought.Shelf held(long machineId, Proof proof) {
        List<Brought> all = new ArrayList<>();
        for (int i = 0; i < proof.expectations().size(); i++) {
            Expectation e = proof.expectations().get(i);
            if (e.kind() != Expectation.Kind.DIFFERS || all.stream().anyMatch(held -> held.name().equalsIgnoreCase(e.recording().strip()))) {
                continue;
            }
            String named = proof.expectations().stream().filter(other -> other.kind() == Expectation.Kind.DIFFERS && other.recording().strip().equalsIgnoreCase(e.recording().strip()))
                    .map(other -> other.signal() + " " + other.after()).collect(Collectors.joining(" ")).toUpperCase(Locale.ROOT);
            Optional<Brought> brought = named(machineId, e.recording().strip());
            int number = i;
            brought.ifPresent(recording -> {
                try {
                    all.add(recording.inMemory(column -> named.contains(column.toUpperCase(Locale.ROOT)), MOST_HELD));
                } catch (IllegalArgumentException tooLong) {
                    throw new InvalidEntry("expectations/" + number + "/recording", e.recording(), tooLong.getMessage(), "bring in the part that matters");
                }
            });
        }
        return Brought.Shelf.of(all);
    }

    /** A signal in the database: segments are read where it is looked at. */
    public final class Stored implements Sampled {
        private final long recording;
        private final long samples;
        private final RecordedSignals.Named named;

        Stored(long recording, long samples, RecordedSignals.Named named) {
            this.recording = recording;
            this.samples = samples;
            this.named = named;
        }

        public Signal signal() {
            return new Signal(named.name(), named.unit());
        }

        @Override
        public long samples() {
            return samples;
        }

        @Override
        public Overview overview() {
            return overviews.get(new Place(recording, named.place(), 0), place -> Overview.of(Segments.inflated(signals.findByRecordingIdAndPlace(recording, named.place()).orElseThrow(this::gone).overview)));
        }

        @Override
        public void read(long first, long last, Sink sink) {
            for (long at = first; at < last;) {
                int number = (int) (at / RecordedSegmentEntity.ROWS);
                long[] nanos = times.get(new Place(recording, RecordedSegmentEntity.TIMES, number), place -> Segments.times(content(place)));
                double[] numbers = values.get(new Place(recording, named.place(), number), place -> Segments.values(content(place)));
                long begin = (long) number * RecordedSegmentEntity.ROWS;
                int to = (int) Math.min(nanos.length, last - begin);
                for (int i = (int) (at - begin); i < to; i++) {
                    sink.take(nanos[i], numbers[i]);
                }
                at = begin + RecordedSegmentEntity.ROWS;
            }
        }

        private byte[] content(Place place) {
            return segments.findByRecordingIdAndPlaceAndNumber(place.recording(), place.column(), place.number()).orElseThrow(this::gone).content;
        }

        private NotFound gone() {
            return new NotFound("recording " + recording + " any more");
        }
    }
}
