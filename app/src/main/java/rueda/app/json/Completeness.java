package rueda.app.json;

import java.lang.reflect.RecordComponent;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Set;
import rueda.machine.EntryFault;

/** What may be left out of a posted document or an answer; everything else has to be there. */
public final class Completeness {

    /** Components that may be null, by the simple name of their record. */
    public static final Map<String, Set<String>> MAY_BE_NULL = Map.ofEntries(
            Map.entry("Expectation", Set.of("axis", "after", "position", "tolerance", "within", "stays", "quantity", "limit", "text", "signal", "low", "high", "span", "when", "then", "atLeast", "other", "otherLow", "otherHigh", "distance", "end", "recording", "alignment")),
            Map.entry("ScriptStep", Set.of("time", "when", "target", "value", "axis", "amount", "mistake", "lasts", "until", "request")),
            Map.entry("Condition", Set.of("axis", "sentence", "from", "to", "steps")),
            Map.entry("Verdict", Set.of("limit", "measured", "room", "margin", "cause", "order", "mend", "change")),
            Map.entry("RunView", Set.of("stopped")),
            Map.entry("RepetitionView", Set.of("endedAt", "message", "map")),
            Map.entry("RepetitionProgress", Set.of("seconds")),
            Map.entry("TraceLine", Set.of("run", "recording", "less")),
            Map.entry("FastestProgress", Set.of("best", "fastest", "refused")),
            Map.entry("Fastest", Set.of("before", "after")),
            Map.entry("TakenOver", Set.of("text", "number")),
            Map.entry("LearningProgress", Set.of("learned", "refused")),
            Map.entry("OverlayQuestion", Set.of("event", "signal", "at")),
            Map.entry("AtEvent", Set.of("recorded")),
            Map.entry("Measured", Set.of("frequency")),
            Map.entry("BringingProgress", Set.of("recording", "failed")),
            Map.entry("MapCell", Set.of("margin", "share")),
            Map.entry("MapColumn", Set.of("margin")),
            Map.entry("State", Set.of("fault")),
            Map.entry("ProcessData", Set.of("control", "status", "state")),
            Map.entry("AxisState", Set.of("probe1", "probe2")),
            Map.entry("Finding", Set.of("mend")),
            Map.entry("Diagnostic", Set.of("mend")),
            Map.entry("Change", Set.of("value")),
            Map.entry("HomingAnswer", Set.of("edge")),
            Map.entry("TakeControl", Set.of("monitoringSeconds")),
            Map.entry("HandOrder", Set.of("value", "fast", "terminal", "speedLimit")),
            Map.entry("IdentificationProgress", Set.of("answer")),
            Map.entry("ProofProgress", Set.of("run", "refused")),
            Map.entry("StepAnswer", Set.of("settled", "inPosition")),
            Map.entry("Check", Set.of("mend")),
            Map.entry("Brought", Set.of("configuration")),
            Map.entry("ValueQuestion", Set.of("value", "raw")),
            Map.entry("TagTablePreview", Set.of("csv")),
            Map.entry("ComparisonQuestion", Set.of("columns", "order")),
            Map.entry("WriteQuestion", Set.of("image", "interruptedAfter")),
            Map.entry("HandAnswer", Set.of("refusal")),
            Map.entry("AxisListQuestion", Set.of("axis", "name", "feed", "to")),
            Map.entry("MovesAnswer", Set.of("plan", "dragged")),
            Map.entry("PlanQuestion", Set.of("machine", "base", "at", "drag")),
            Map.entry("MovesEditQuestion", Set.of("machine", "base", "entry", "kind", "to")),
            Map.entry("TelegramQuestion", Set.of("machine", "base")),
            Map.entry("ChangeAnswer", Set.of("program")),
            Map.entry("NewMachineQuestion", Set.of("name")),
            Map.entry("SentencesQuestion", Set.of("machine", "base")),
            Map.entry("FolderState", Set.of("takenAt")),
            Map.entry("CopyQuestion", Set.of("name")),
            Map.entry("Listed", Set.of("deletedAt", "lastProof")),
            Map.entry("GuardQuestion", Set.of("machine", "base", "function", "request")),
            Map.entry("StoppingQuestion", Set.of("machine", "base", "function", "request", "proof")),
            Map.entry("AxisQuestion", Set.of("machine", "base")),
            Map.entry("RequestQuestion", Set.of("machine", "base", "change", "request", "name")),
            Map.entry("GuardPlan", Set.of("stands", "brake", "torque", "distance", "beyond")),
            Map.entry("StopGrip", Set.of("time")),
            Map.entry("Stopped", Set.of("moment", "stoppingTime", "longest", "reaction", "away")),
            Map.entry("FollowQuestion", Set.of("machine", "base", "masterSpeed")),
            Map.entry("FollowNow", Set.of("shaft")),
            Map.entry("MasterQuestion", Set.of("machine", "base", "master")),
            Map.entry("VirtualMasterQuestion", Set.of("machine", "base", "master", "name")),
            Map.entry("Followed", Set.of("locked", "trimmed", "worst", "refusal")),
            Map.entry("NameQuestion", Set.of("machine", "base")),
            Map.entry("RenameQuestion", Set.of("machine", "base")),
            Map.entry("TagsQuestion", Set.of("machine", "base")),
            Map.entry("NameAnswer", Set.of("found")),
            Map.entry("ProgramFinding", Set.of("mend")),
            Map.entry("Start", Set.of("axis", "running", "retained")),
            Map.entry("ProfileQuestion", Set.of("startVelocity", "endVelocity", "maxDeceleration", "maxJerk")));

    private Completeness() {
    }

    /** What is missing in a record and everything inside it, at most ten places. */
    public static List<EntryFault> missing(Object document) {
        return missing(document, "");
    }

    /** The same of a part of a document. @param pointer where it stands, JSON pointer */
    public static List<EntryFault> missing(Object part, String pointer) {
        List<EntryFault> faults = new ArrayList<>();
        look(part, pointer, faults);
        return faults;
    }

    private static void look(Object value, String pointer, List<EntryFault> faults) {
        if (faults.size() >= 10) {
            return;
        }
        if (value instanceof Collection<?> list) {
            int i = 0;
            for (Object element : list) {
                inside(element, pointer + "/" + i++, false, faults);
            }
        } else if (value instanceof Record) {
            Set<String> optional = MAY_BE_NULL.getOrDefault(value.getClass().getSimpleName(), Set.of());
            for (RecordComponent component : value.getClass().getRecordComponents()) {
                if (!component.getType().isPrimitive()) {
                    inside(read(component, value), pointer + "/" + component.getName(), optional.contains(component.getName()), faults);
                }
            }
        }
    }

    private static void inside(Object value, String pointer, boolean optional, List<EntryFault> faults) {
        if (value != null) {
            look(value, pointer, faults);
        } else if (!optional) {
            faults.add(new EntryFault(pointer, StrictJson.label(pointer), "missing", "a value", "add it"));
        }
    }

    private static Object read(RecordComponent component, Object owner) {
        try {
            component.getAccessor().setAccessible(true);
            return component.getAccessor().invoke(owner);
        } catch (ReflectiveOperationException impossible) {
            throw new IllegalStateException(impossible);
        }
    }
}
