package rueda.app.machine;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import rueda.app.web.Refusals.Conflict;
import rueda.app.web.Refusals.NotFound;
import rueda.app.web.Refusals.RefusedEntries;
import rueda.app.web.Refusals.UnreadableDocument;
import rueda.machine.DemoMachine;
import rueda.machine.EntryFault;
import rueda.machine.Machine;
import rueda.machine.MachineRules;

/** Keeps machines and their revisions. Every change needs the revision it was based on. */
@Service
public class MachineStore {

    private final Machines machines;
    private final Revisions revisions;
    private final TransactionTemplate write;

    MachineStore(Machines machines, Revisions revisions, PlatformTransactionManager transactions) {
        this.machines = machines;
        this.revisions = revisions;
        this.write = new TransactionTemplate(transactions);
    }

    /**
     * A machine in the list.
     *
     * @param id         key
     * @param name       its name
     * @param revision   number of the revision it stands at
     * @param unreadable why that revision cannot be opened, empty when it can
     */
    public record Listed(long id, String name, long revision, String unreadable) {
    }

    /**
     * A revision in the list.
     *
     * @param number     of the revision
     * @param savedAt    when it was saved
     * @param name       name of the machine in it, empty when it cannot be read
     * @param current    the machine stands at it
     * @param unreadable why it cannot be opened, empty when it can
     */
    public record ListedRevision(long number, Instant savedAt, String name, boolean current, String unreadable) {
    }

    /** All machines; one whose document cannot be read is among them, with the reason. */
    @Transactional(readOnly = true)
    public List<Listed> all() {
        return machines.findAll().stream().map(m -> new Listed(m.id, m.name, m.currentRevision, unreadable(revisions.findByMachineIdAndNumber(m.id, m.currentRevision)))).toList();
    }

    private static String unreadable(Optional<RevisionEntity> revision) {
        if (revision.isEmpty()) {
            return "the revision is not there";
        }
        try {
            MachineJson.read(revision.get().document);
            return "";
        } catch (IllegalArgumentException reason) {
            return reason.getMessage();
        }
    }

    /** The latest 50 revisions, the newest first. */
    @Transactional(readOnly = true)
    public List<ListedRevision> revisions(long id) {
        MachineEntity machine = machines.findById(id).orElseThrow(() -> new NotFound("machine " + id));
        return revisions.findTop50ByMachineIdOrderByNumberDesc(id).stream().map(r -> {
            String unreadable = unreadable(Optional.of(r));
            return new ListedRevision(r.number, r.savedAt, unreadable.isEmpty() ? MachineJson.read(r.document).name() : "", r.number == machine.currentRevision, unreadable);
        }).toList();
    }

    /** The text of a revision as it is stored. */
    @Transactional(readOnly = true)
    public String text(long id, long number) {
        return revisions.findByMachineIdAndNumber(id, number).orElseThrow(() -> new NotFound("revision " + number + " of machine " + id)).document;
    }

    /** Goes to a revision; the others stay. */
    @Transactional
    public MachineState open(long id, long basedOn, long number) {
        MachineEntity entity = based(id, basedOn);
        revisions.findByMachineIdAndNumber(id, number).orElseThrow(() -> new NotFound("revision " + number + " of machine " + id));
        entity.currentRevision = number;
        MachineState state = state(entity);
        entity.name = state.document().name();
        return state;
    }

    /** Puts the demo cell into an empty database. */
    @Transactional
    public void addDemoWhenEmpty() {
        if (machines.count() == 0) {
            Machine demo = DemoMachine.create();
            MachineEntity entity = machines.save(new MachineEntity(demo.name()));
            revisions.save(new RevisionEntity(entity.id, 1, null, MachineJson.write(demo)));
            entity.currentRevision = 1;
        }
    }

    @Transactional(readOnly = true)
    public MachineState get(long id) {
        return state(machines.findById(id).orElseThrow(() -> new NotFound("machine " + id)));
    }

    /** Looks at the document first: while that lasts, nobody who saves is kept waiting. */
    public MachineState save(long id, long basedOn, Machine document) {
        List<EntryFault> faults = MachineRules.check(document);
        if (!faults.isEmpty()) {
            throw new RefusedEntries(faults);
        }
        String json = MachineJson.write(document);
        return write.execute(status -> saved(id, basedOn, document, json));
    }

    private MachineState saved(long id, long basedOn, Machine document, String json) {
        MachineEntity entity = based(id, basedOn);
        if (json.equals(revision(entity).document)) {
            return state(entity);
        }
        long number = revisions.lastNumber(id) + 1;
        revisions.save(new RevisionEntity(id, number, entity.currentRevision, json));
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
        return state(entity);
    }

    @Transactional
    public MachineState redo(long id, long basedOn) {
        MachineEntity entity = based(id, basedOn);
        revisions.findFirstByMachineIdAndParentOrderByNumberDesc(id, entity.currentRevision)
                .ifPresent(child -> entity.currentRevision = child.number);
        return state(entity);
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
        boolean canRedo = revisions.findFirstByMachineIdAndParentOrderByNumberDesc(entity.id, revision.number).isPresent();
        try {
            return new MachineState(entity.id, revision.number, revision.savedAt, revision.parent != null, canRedo, MachineJson.read(revision.document), MachineJson.unknown(revision.document));
        } catch (IllegalArgumentException reason) {
            throw new UnreadableDocument(entity.id, revision.number, reason.getMessage());
        }
    }
}
