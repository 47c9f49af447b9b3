package rueda.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;
import rueda.bus.BusFamily;
import rueda.machine.Axis;
import rueda.machine.Feed;
import rueda.machine.Following;
import rueda.machine.Machine;
import rueda.machine.NewAxis;
import rueda.machine.Plc.DeclaredTag;
import rueda.machine.Proof;
import rueda.machine.Station;
import rueda.machine.Station.Entry;
import rueda.plc.type.Type;
import rueda.plc.ProgramTexts;
import rueda.plc.syntax.Words;
import rueda.quantity.InvalidEntry;

/** A change of the list of axes, with everything that follows from it. */
public sealed interface AxisEdit {

    /** As the program can name an axis, and as long as the tables of runs and images hold it. */
    Pattern IDENTIFIER = Pattern.compile("[A-Za-z_][A-Za-z0-9_]{0,79}");

    /**
     * @param machine the document after the change
     * @param axis    index of the axis that it was about, or of the one in its place; −1 when none is left
     */
    record Outcome(Machine machine, int axis) {
    }

    /** @throws InvalidEntry naming what is refused */
    Outcome on(Machine machine);

    /** A new axis at the end. @param name of the new axis  @param feed what moves its load */
    record Add(String name, Feed.Kind feed) implements AxisEdit {
        @Override
        public Outcome on(Machine machine) {
            String fit = fit(machine, name, -1);
            return inserted(machine, machine.axes().size(), NewAxis.named(fit, feed).withStation(BusFamily.fresh(machine, fit)));
        }
    }

    /**
     * An axis like another, behind it: at an address of its own, with tags of its own name. Tags whose name does not begin with that of the
     * axis can be bound once only, and are left out.
     *
     * @param axis name of the axis to copy  @param name of the new axis
     */
    record Copy(String axis, String name) implements AxisEdit {
        @Override
        public Outcome on(Machine machine) {
            int at = index(machine, axis);
            Axis of = machine.axes().get(at);
            String fit = fit(machine, name, -1);
            Station fresh = BusFamily.fresh(machine, fit);
            Station station = of.station().withAddress(fresh.address())
                    .withEntries(copied(of.station().outputs(), of.name(), fit), copied(of.station().inputs(), of.name(), fit));
            return inserted(machine, at + 1, of.withName(fit).withStation(station));
        }

        private static List<Entry> copied(List<Entry> entries, String from, String to) {
            return entries.stream().map(e -> !e.hasTag() ? e : follows(e.tag(), from) ? e.withTag(follow(e.tag(), from, to), e.tagType()) : e.withTag("", e.tagType())).toList();
        }
    }

    /** The tags, the program, the proof and the bus follow. @param axis its present name  @param name its name from now on */
    record Rename(String axis, String name) implements AxisEdit {
        @Override
        public Outcome on(Machine machine) {
            int at = index(machine, axis);
            Axis old = machine.axes().get(at);
            String from = old.name();
            String to = fit(machine, name, at);
            List<String> taken = from.equalsIgnoreCase(to) ? List.of() : ProgramTexts.uses(machine.plc(), to);
            if (!taken.isEmpty()) {
                throw new InvalidEntry("name", to, "a name that the program does not use yet (line " + taken.get(0) + ")", "choose another, or rename what the program calls " + to);
            }
            Machine renamed = machine.withAxes(machine.axes().stream().map(a -> followed(a, from, to)).toList());
            Axis itself = renamed.axes().get(at);
            Station.Address address = itself.station().address();
            itself = itself.withName(to).withStation(itself.station().withAddress(address.name().equals(Station.nameOf(from)) ? address.withName(Station.nameOf(to)) : address));
            renamed = renamed.withAxis(at, itself)
                    .withProofs(machine.proofs().stream().map(p -> ProofEdit.renamed(p, from, to)).toList())
                    .withPlc(ProgramTexts.renamed(machine.plc(), from, to)
                            .withTasks(machine.plc().tasks().stream().map(t -> t.withOnTag(follow(t.onTag(), from, to))).toList())
                            .withTags(machine.plc().tags().stream().map(t -> new DeclaredTag(follow(t.name(), from, to), t.type())).toList()));
            if (machine.bus().clock() != null && from.equalsIgnoreCase(machine.bus().clock().reference())) {
                renamed = renamed.withBus(machine.bus().withClock(machine.bus().clock().withReference(to)));
            }
            return new Outcome(renamed, at);
        }

        private static Axis followed(Axis axis, String from, String to) {
            return axis.withStation(axis.station().withEntries(followed(axis.station().outputs(), from, to), followed(axis.station().inputs(), from, to)))
                    .withFollowing(axis.following().withMaster(from.equalsIgnoreCase(axis.following().master()) ? to : axis.following().master()));
        }

        private static List<Entry> followed(List<Entry> entries, String from, String to) {
            return entries.stream().map(e -> e.hasTag() ? e.withTag(follow(e.tag(), from, to), e.tagType()) : e).toList();
        }
    }

    /** Moves an axis in the list; its station keeps its address. @param axis name of the axis  @param to its index from now on */
    record Move(String axis, int to) implements AxisEdit {
        @Override
        public Outcome on(Machine machine) {
            int at = index(machine, axis);
            if (to < 0 || to >= machine.axes().size()) {
                throw new InvalidEntry("to", Integer.toString(to), "0 to " + (machine.axes().size() - 1), "choose a place in the list");
            }
            List<Axis> axes = new ArrayList<>(machine.axes());
            axes.add(to, axes.remove(at));
            return new Outcome(machine.withAxes(axes), to);
        }
    }

    /** Takes an axis out, with its station, its tags and the expectations about it. The program stays as it is. @param axis name of the axis */
    record Remove(String axis) implements AxisEdit {
        @Override
        public Outcome on(Machine machine) {
            int at = index(machine, axis);
            String name = machine.axes().get(at).name();
            List<Axis> axes = new ArrayList<>(machine.axes());
            axes.remove(at);
            axes.replaceAll(a -> name.equalsIgnoreCase(a.following().master()) ? a.withFollowing(a.following().withSource(Following.Source.NONE).withMaster("")) : a);
            Machine without = machine.withAxes(axes).withProofs(machine.proofs().stream().map(p -> ProofEdit.without(p, name)).toList());
            if (machine.bus().clock() != null && name.equalsIgnoreCase(machine.bus().clock().reference())) {
                without = without.withBus(machine.bus().withClock(machine.bus().clock().withReference("")));
            }
            return new Outcome(without, Math.min(at, axes.size() - 1));
        }
    }

    /** What {@link Remove} takes along or leaves without its axis, in words; empty when nothing depends on it. */
    static List<String> dependents(Machine machine, String axis) {
        Axis removed = machine.axes().get(index(machine, axis));
        List<String> all = new ArrayList<>();
        List<String> tags = new ArrayList<>();
        removed.station().outputs().stream().filter(Entry::hasTag).forEach(e -> tags.add(e.tag()));
        removed.station().inputs().stream().filter(Entry::hasTag).forEach(e -> tags.add(e.tag()));
        if (!tags.isEmpty()) {
            all.add("Removed with it: " + (tags.size() == 1 ? "the tag " : tags.size() + " tags, ") + some(tags) + ".");
        }
        machine.axes().stream().filter(a -> a.following().follows() && removed.name().equalsIgnoreCase(a.following().master())).forEach(a -> all.add("The axis " + a.name() + " follows it, and will follow nothing."));
        for (Proof proof : machine.proofs()) {
            long sentences = ProofEdit.dependents(proof, removed.name());
            if (sentences > 0) {
                all.add("Removed with it: " + sentences + (sentences == 1 ? " sentence" : " sentences") + " of the proof “" + proof.name() + "”.");
            }
        }
        List<String> lines = ProgramTexts.uses(machine.plc(), removed.name());
        if (!lines.isEmpty()) {
            all.add("Stays and will not compile: the program names it in line" + (lines.size() == 1 ? " " : "s ") + some(lines) + ".");
        }
        if (machine.bus().clock() != null && removed.name().equalsIgnoreCase(machine.bus().clock().reference())) {
            all.add("Its station is the reference of the distributed clocks; the first station becomes it.");
        }
        return List.copyOf(all);
    }

    private static String some(List<String> names) {
        return names.size() <= 6 ? String.join(", ", names) : String.join(", ", names.subList(0, 5)) + " and " + (names.size() - 5) + " more";
    }

    private static Outcome inserted(Machine machine, int at, Axis axis) {
        List<Axis> axes = new ArrayList<>(machine.axes());
        axes.add(at, axis);
        return new Outcome(machine.withAxes(axes), at);
    }

    private static int index(Machine machine, String name) {
        for (int i = 0; i < machine.axes().size(); i++) {
            if (machine.axes().get(i).name().equalsIgnoreCase(name)) {
                return i;
            }
        }
        throw new InvalidEntry("axis", String.valueOf(name), "the name of an axis of this machine", "choose one of them");
    }

    /** @param of index of the axis that is renamed, −1 for a new one */
    private static String fit(Machine machine, String name, int of) {
        String fit = named(name);
        if (machine.virtualMaster(fit).isPresent()) {
            throw new InvalidEntry("name", fit, "a name no virtual master has", "choose another");
        }
        for (int i = 0; i < machine.axes().size(); i++) {
            if (i != of && machine.axes().get(i).name().toUpperCase(Locale.ROOT).equals(fit.toUpperCase(Locale.ROOT))) {
                throw new InvalidEntry("name", fit, "a name no other axis has", "choose another");
            }
        }
        return fit;
    }

    /** A name that a program can use, without spaces around. @throws InvalidEntry for any other */
    static String named(String name) {
        String fit = name == null ? "" : name.strip();
        if (!IDENTIFIER.matcher(fit).matches()) {
            throw new InvalidEntry("name", fit, "a letter, then letters, digits or _, up to 80 characters", "the program uses it as an identifier");
        }
        if (Words.faultOfName(fit) != null || Type.named(fit) != null) {
            throw new InvalidEntry("name", fit, "a name that the PLC program can use", Type.named(fit) != null ? fit + " is a type; choose another name" : Words.faultOfName(fit));
        }
        return fit;
    }

    /** A name of the axis itself or of a member of it. */
    private static boolean follows(String name, String axis) {
        return name.length() >= axis.length() && name.regionMatches(true, 0, axis, 0, axis.length()) && (name.length() == axis.length() || name.charAt(axis.length()) == '.');
    }

    private static String follow(String name, String from, String to) {
        return follows(name, from) ? to + name.substring(from.length()) : name;
    }
}
