package rueda.app.web;

import java.time.Instant;
import java.util.List;
import rueda.machine.EntryFault;

/** Why a request is refused; {@link ProblemDocuments} turns each into a problem document. */
public final class Refusals {

    private Refusals() {
    }

    /** Nothing has this key. */
    public static final class NotFound extends RuntimeException {
        public NotFound(String what) {
            super("There is no " + what + ".");
        }
    }

    /** Entries of the document are refused. */
    public static final class RefusedEntries extends RuntimeException {
        final transient List<EntryFault> faults;

        public RefusedEntries(List<EntryFault> faults) {
            super(faults.size() == 1 ? faults.get(0).label() + " is refused." : faults.size() + " entries are refused.");
            this.faults = faults;
        }

        public List<EntryFault> faults() {
            return faults;
        }
    }

    /** What is stored cannot be read by this Rueda. */
    public static final class UnreadableDocument extends RuntimeException {
        final long machine;
        final long revision;

        public UnreadableDocument(long machine, long revision, String reason) {
            super("Revision " + revision + " of machine " + machine + " cannot be read: " + reason + ". Nothing of it is lost: open an earlier revision, or take its text out.");
            this.machine = machine;
            this.revision = revision;
        }
    }

    /** Someone else saved first. */
    public static final class Conflict extends RuntimeException {
        final long current;
        final transient Instant savedAt;

        public Conflict(long basedOn, long current, Instant savedAt) {
            super("This change is based on revision " + basedOn + ", but another page has moved the machine to revision " + current + ".");
            this.current = current;
            this.savedAt = savedAt;
        }
    }

    /** If-Match is not there. */
    public static final class MissingRevision extends RuntimeException {
        public MissingRevision(String value) {
            super("If-Match is " + value + "; send the revision the change is based on, such as \"7\".");
        }
    }

    /** Another page moves the axes by hand. */
    public static final class ControlHeld extends RuntimeException {
        public ControlHeld() {
            super("The axes are being moved by hand. Give control back first; it also ends by itself when the page that holds it is gone.");
        }
    }

    /** More is asked for than can wait. */
    public static final class TooMuchAtOnce extends RuntimeException {
        public TooMuchAtOnce(String waiting) {
            super("Too much is asked for at once: " + waiting + " wait already. Nothing was done; try again in a moment.");
        }
    }

    /** The bench or a proof cannot run with this program. */
    public static final class ProgramHasFaults extends RuntimeException {
        public ProgramHasFaults(String first) {
            super("The program has faults, so it cannot run. The first: " + first);
        }
    }
}
