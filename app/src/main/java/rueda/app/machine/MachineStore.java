package rueda.app.machine;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.function.LongConsumer;
import java.util.function.LongFunction;
import org.springframework.data.domain.Limit;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import rueda.app.web.Refusals.Conflict;
import rueda.app.web.Refusals.NotFound;
import rueda.app.web.Refusals.UnreadableDocument;
import rueda.edit.DocumentChange;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.quantity.InvalidEntry;

/** Keeps machines and their revisions. Every change needs the revision it was based on. */
@Service
public class MachineStore {

    private static final int MOST_MACHINES = 1000;
    private static final int MOST_LISTED = 50;

    private final Machines machines;
    private final Revisions revisions;
    private final KnownRevisions known;
    private final TransactionTemplate write;
    private final Clock clock;
    private volatile LongFunction<Optional<LastProof>> lastProof = id -> Optional.empty();
    private volatile LongConsumer onDelete = id -> { };
    private volatile LongConsumer onDemo = id -> { };

    MachineStore(Machines machines, Revisions revisions, KnownRevisions known, PlatformTransactionManager transactions, Clock clock) {
        this.machines = machines;
        this.revisions = revisions;
        this.known = known;
        this.clock = clock;
        this.write = new TransactionTemplate(transactions);
    }

    /** @param action done with the key of the demo after it has been put in */
    public void onDemo(LongConsumer action) {
        onDemo = action;
    }

    /** A machine is the demo, and gets what belongs to it. */
    void demoMade(long id) {
        onDemo.accept(id);
    }

    /** @param action done with the key of a machine after it has been deleted */
    public void onDelete(LongConsumer action) {
        onDelete = action;
    }

    /**
     * A machine in the list.
     *
     * @param id         key
     * @param name       its name
     * @param revision   number of the revision it stands at
     * @param changedAt  when that was saved
     * @param axes       how many axes it has; 0 when it cannot be read
     * @param deletedAt  when it was deleted, null when it was not
     * @param unreadable why that revision cannot be opened, empty when it can
     * @param lastProof  how the last run of its proof ended, null when it has not run
     */
    public record Listed(long id, String name, long revision, Instant changedAt, int axes, Instant deletedAt, String unreadable, LastProof lastProof) {
    }

    /** @param name of the proof  @param ranAt when  @param revision of the machine at that time  @param holds all expectations held  @param failed how many did not */
    public record LastProof(String name, Instant ranAt, long revision, boolean holds, int failed) {
    }

    /** @param last how the last run of a machine's proof ended, by its key */
    public void proofs(LongFunction<Optional<LastProof>> last) {
        lastProof = last;
    }

    /**
     * A revision in the list.
     *
     * @param number     of the revision
     * @param savedAt    when it was saved
     * @param name       a name that somebody gave it, empty for none
     * @param origin     what it came from when it changed no other one, empty for nothing
     * @param changes    what it changed, in words, the first of them; empty when nothing can be compared
     * @param moreChanges how many more there are
     * @param current    the machine stands at it
     * @param unreadable why it cannot be opened, empty when it can
     */
    public record ListedRevision(long number, Instant savedAt, String name, String origin, List<DocumentChange> changes, int moreChanges, boolean current, String unreadable) {
    }

    /** All machines, deleted ones too; one whose document cannot be read is among them, with the reason. */
    @Transactional(readOnly = true)
    public List<Listed> all() {
        return machines.rows().stream().map(m -> {
            KnownRevisions.Read read = known.read(m.id(), m.revision());
            return new Listed(m.id(), m.name(), m.revision(), m.savedAt() == null ? Instant.EPOCH : m.savedAt(), read.axes(), m.deletedAt(), read.unreadable(), lastProof.apply(m.id()).orElse(null));
        }).toList();
    }

    @Transactional(readOnly = true)
    public boolean exists(long id) {
        return machines.findByIdAndDeletedAtIsNull(id).isPresent();
    }

    /** A new machine. @param document checked here */
    public MachineState create(Machine document, String origin) {
        String json = MachineJson.write(Checked.machine(document));
        return write.execute(status -> {
            if (machines.countByDeletedAtIsNull() >= MOST_MACHINES) {
                throw new InvalidEntry("machines", "one more", "up to " + MOST_MACHINES + " machines", "delete one that is not needed");
            }
            MachineEntity entity = machines.save(new MachineEntity(document.name()));
            RevisionEntity first = new RevisionEntity(entity.id, 1, null, json, clock.instant());
            first.origin = origin;
            revisions.save(first);
            entity.currentRevision = 1;
            return state(entity);
        });
    }

    /** The same with another name, as a revision of its own. */
    public MachineState rename(long id, long basedOn, String name) {
        return save(id, basedOn, get(id).document().withName(name == null ? "" : name.strip()));
    }

    /** Takes a machine out of the list; {@link #bringBack} brings it back as it was. */
    public void delete(long id) {
        write.executeWithoutResult(status -> machines.lock(id).orElseThrow(() -> new NotFound("machine " + id)).deletedAt = clock.instant());
        onDelete.accept(id);
    }

    @Transactional
    public MachineState bringBack(long id) {
        MachineEntity deleted = machines.findById(id).orElseThrow(() -> new NotFound("machine " + id));
        deleted.deletedAt = null;
        return state(deleted);
    }

    /** The latest 50 revisions before a number, the newest first. @param before the number, or Long.MAX_VALUE */
    @Transactional(readOnly = true)
    public List<ListedRevision> revisions(long id, long before) {
        MachineEntity machine = entity(id);
        return revisions.rows(id, before, Limit.of(MOST_LISTED)).stream().map(r -> {
            KnownRevisions.Changed changed = known.changed(id, r.number(), r.parent());
            String unreadable = known.read(id, r.number()).unreadable();
            return new ListedRevision(r.number(), r.savedAt(), r.name() == null ? "" : r.name(), r.origin() == null ? "" : r.origin(), changed.first(), changed.more(), r.number() == machine.currentRevision, unreadable);
        }).toList();
    }

    /** What is different in one revision against another. */
    @Transactional(readOnly = true)
    public List<DocumentChange> comparison(long id, long from, long to) {
        return DocumentChange.between(document(id, from), document(id, to));
    }

    /** As a revision has it. */
    @Transactional(readOnly = true)
    public Machine document(long id, long number) {
        RevisionEntity revision = revision(id, number);
        try {
            return MachineJson.read(revision.document);
        } catch (IllegalArgumentException reason) {
            throw new UnreadableDocument(id, number, reason.getMessage());
        }
    }

    /** Gives a revision a name, or takes it away. @param name up to 80 characters, empty for none */
    @Transactional
    public void nameRevision(long id, long number, String name) {
        String clean = name == null ? "" : name.strip();
        if (clean.length() > 80 || clean.chars().anyMatch(Character::isISOControl)) {
            throw new InvalidEntry("name", clean.length() + " characters", "up to 80 characters on one line", "shorten it");
        }
        entity(id);
        revision(id, number).name = clean.isEmpty() ? null : clean;
    }

    private RevisionEntity revision(long id, long number) {
        return revisions.findByMachineIdAndNumber(id, number).orElseThrow(() -> new NotFound("revision " + number + " of machine " + id));
    }

    private MachineEntity entity(long id) {
        return machines.findByIdAndDeletedAtIsNull(id).orElseThrow(() -> new NotFound("machine " + id));
    }

    /** The text of a revision as it is stored. */
    @Transactional(readOnly = true)
    public String text(long id, long number) {
        return revision(id, number).document;
    }

    /** Goes to a revision; the others stay. */
    @Transactional
    public MachineState open(long id, long basedOn, long number) {
        MachineEntity entity = based(id, basedOn);
        revision(id, number);
        entity.currentRevision = number;
        return stands(entity);
    }

    /** It has gone to another revision, in which it may have another name. */
    private MachineState stands(MachineEntity entity) {
        MachineState state = state(entity);
        entity.name = state.document().name();
        return state;
    }

    /** Puts the demo cell into an empty database. */
    public void addDemoWhenEmpty() {
        if (machines.count() == 0) {
            demoMade(create(DemoMachine.create(), "the demo").id());
        }
    }

    @Transactional(readOnly = true)
    public MachineState get(long id) {
        return state(entity(id));
    }

    /** Looks at the document first: while that lasts, nobody who saves is kept waiting. */
    public MachineState save(long id, long basedOn, Machine document) {
        String json = MachineJson.write(Checked.machine(document));
        return write.execute(status -> saved(id, basedOn, document, json));
    }

    private MachineState saved(long id, long basedOn, Machine document, String json) {
        MachineEntity entity = based(id, basedOn);
        if (json.equals(revision(entity).document)) {
            return state(entity);
        }
        long number = revisions.lastNumber(id) + 1;
        revisions.save(new RevisionEntity(id, number, entity.currentRevision, json, clock.instant()));
        entity.currentRevision = number;
        entity.name = document.name();
        return state(entity);
    }

    @Transactional
    public MachineState undo(long id, long basedOn) {
        MachineEntity entity = based(id, basedOn);
        Long parent = revision(entity).parent;
        if (parent != null) {
            entity.currentRevision = parent;
        }
        return stands(entity);
    }

    @Transactional
    public MachineState redo(long id, long basedOn) {
        MachineEntity entity = based(id, basedOn);
        revisions.findFirstByMachineIdAndParentOrderByNumberDesc(id, entity.currentRevision)
                .ifPresent(child -> entity.currentRevision = child.number);
        return stands(entity);
    }

    private MachineEntity based(long id, long basedOn) {
        MachineEntity entity = machines.lock(id).orElseThrow(() -> new NotFound("machine " + id));
        if (entity.currentRevision != basedOn) {
            throw new Conflict(basedOn, entity.currentRevision, revision(entity).savedAt);
        }
        return entity;
    }

    private RevisionEntity revision(MachineEntity entity) {
        return revisions.findByMachineIdAndNumber(entity.id, entity.currentRevision).orElseThrow();
    }

    private MachineState state(MachineEntity entity) {
        RevisionEntity revision = revision(entity);
        boolean canRedo = revisions.existsByMachineIdAndParent(entity.id, revision.number);
        try {
            return new MachineState(entity.id, revision.number, revision.savedAt, revision.parent != null, canRedo, MachineJson.read(revision.document), MachineJson.unknown(revision.document));
        } catch (IllegalArgumentException reason) {
            throw new UnreadableDocument(entity.id, revision.number, reason.getMessage());
        }
    }
}
