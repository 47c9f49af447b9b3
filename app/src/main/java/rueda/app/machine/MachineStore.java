package rueda.app.machine;

import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import rueda.app.web.Refusals.Conflict;
import rueda.app.web.Refusals.NotFound;
import rueda.app.web.Refusals.RefusedEntries;
import rueda.machine.DemoMachine;
import rueda.machine.EntryFault;
import rueda.machine.Machine;
import rueda.machine.MachineRules;

/** Keeps machines and their revisions. Every change needs the revision it was based on. */
@Service
public class MachineStore {

    private final Machines machines;
    private final Revisions revisions;

    MachineStore(Machines machines, Revisions revisions) {
        this.machines = machines;
        this.revisions = revisions;
    }

    @Transactional(readOnly = true)
    public List<MachineState> all() {
        return machines.findAll().stream().map(this::state).toList();
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

    @Transactional
    public MachineState save(long id, long basedOn, Machine document) {
        MachineEntity entity = based(id, basedOn);
        List<EntryFault> faults = MachineRules.check(document);
        if (!faults.isEmpty()) {
            throw new RefusedEntries(faults);
        }
        String json = MachineJson.write(document);
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
        return new MachineState(entity.id, revision.number, revision.savedAt, revision.parent != null, canRedo, MachineJson.read(revision.document));
    }
}
