package rueda.app.machine;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.List;
import org.springframework.stereotype.Component;
import rueda.edit.DocumentChange;
import rueda.machine.Machine;

/**
 * What lists tell of stored revisions, so that a document is read when it is listed first, and not again with every look. A stored document
 * never changes, so what was read of it stays true; one that cannot be read is tried again. Thread-safe.
 */
@Component
class KnownRevisions {

    private static final int MOST = 20_000;
    private static final int MOST_CHANGES = 4;

    private final Revisions revisions;
    private final Cache<Key, Integer> axes = Caffeine.newBuilder().maximumSize(MOST).build();
    private final Cache<Key, Changed> changes = Caffeine.newBuilder().maximumSize(MOST).build();

    KnownRevisions(Revisions revisions) {
        this.revisions = revisions;
    }

    private record Key(long machine, long number) {
    }

    /** @param axes how many it has, 0 when it cannot be read  @param unreadable why, empty when it can */
    record Read(int axes, String unreadable) {
    }

    /** @param first the first {@value KnownRevisions#MOST_CHANGES} in words  @param more how many more there are */
    record Changed(List<DocumentChange> first, int more) {
        private static final Changed NOTHING_TO_COMPARE = new Changed(List.of(), 0);
    }

    Read read(long machine, long number) {
        Integer known = axes.getIfPresent(new Key(machine, number));
        if (known != null) {
            return new Read(known, "");
        }
        try {
            return new Read(document(machine, number).axes().size(), "");
        } catch (IllegalArgumentException reason) {
            return new Read(0, reason.getMessage());
        }
    }

    /** What a revision changed of the one that it came from. @param parent may be null */
    Changed changed(long machine, long number, Long parent) {
        Changed known = changes.getIfPresent(new Key(machine, number));
        if (known != null || parent == null) {
            return known == null ? Changed.NOTHING_TO_COMPARE : known;
        }
        try {
            List<DocumentChange> all = DocumentChange.between(document(machine, parent), document(machine, number));
            List<DocumentChange> first = List.copyOf(all.subList(0, Math.min(MOST_CHANGES, all.size())));
            Changed changed = new Changed(first, all.size() - first.size());
            changes.put(new Key(machine, number), changed);
            return changed;
        } catch (IllegalArgumentException unreadable) {
            return Changed.NOTHING_TO_COMPARE;
        }
    }

    /** @throws IllegalArgumentException with the reason when it cannot be read */
    private Machine document(long machine, long number) {
        Machine document = MachineJson.read(revisions.findByMachineIdAndNumber(machine, number)
                .orElseThrow(() -> new IllegalArgumentException("the revision is not there")).document);
        axes.put(new Key(machine, number), document.axes().size());
        return document;
    }
}
