package rueda.edit;

import java.lang.reflect.RecordComponent;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import rueda.machine.Axis;
import rueda.machine.Bus;
import rueda.machine.Machine;
import rueda.machine.Proof;
import rueda.machine.Terminal;
import rueda.quantity.InvalidEntry;

/**
 * One difference between two documents, in words.
 *
 * @param axis  name of the axis in the later document, empty for what belongs to the machine
 * @param entry what it is called, such as “Highest speed”
 * @param from  value before, with its unit; empty for nothing
 * @param to    value after, with its unit; empty for nothing
 */
public record DocumentChange(String axis, String entry, String from, String to) {

    /** More are not told one by one. */
    private static final int MOST = 500;
    private static final int LONGEST_VALUE = 80;

    /**
     * What is different, in the order of the document, up to 500. Axes are held against each other by name; one that is gone and one that is
     * new at the same place are the same, renamed, when most of what they hold is equal.
     */
    public static List<DocumentChange> between(Machine before, Machine after) {
        Comparison comparison = new Comparison();
        comparison.machines(comparison.withNewNames(before, after), after);
        return List.copyOf(comparison.changes.subList(0, Math.min(MOST, comparison.changes.size())));
    }

    /** Walks both documents at once. */
    private static final class Comparison {

        /** Parts whose entries say by themselves what they belong to. */
        private static final List<String> SAYS_ITSELF = List.of("motor", "encoder", "train", "feed", "brake", "travel", "limits", "supervision", "duty", "homing", "control", "station", "wiring", "unit", "bus", "plc", "files", "tasks");

        private final List<DocumentChange> changes = new ArrayList<>();
        private String axis = "";
        private String unit = "";

        private void add(String entry, String from, String to) {
            changes.add(new DocumentChange(axis, entry, from, to));
        }

        /** What follows from another name of an axis is no change of its own: it is told once, and everything that follows has happened on both sides. */
        Machine withNewNames(Machine before, Machine after) {
            Machine renamed = before;
            for (int i = 0; i < Math.min(before.axes().size(), after.axes().size()); i++) {
                Axis was = before.axes().get(i);
                Axis now = after.axes().get(i);
                if (after.axes().stream().noneMatch(same(was)) && before.axes().stream().noneMatch(same(now)) && alike(was, now)) {
                    try {
                        renamed = new AxisEdit.Rename(was.name(), now.name()).on(renamed).machine();
                        changes.add(new DocumentChange(now.name(), "Axis name", was.name(), now.name()));
                    } catch (InvalidEntry takenByTheProgram) {
                        // Then it is told entry by entry.
                    }
                }
            }
            return renamed;
        }

        void machines(Machine before, Machine after) {
            for (RecordComponent component : Machine.class.getRecordComponents()) {
                if (component.getName().equals("axes")) {
                    axes(before.axes(), after.axes());
                } else if (component.getName().equals("proofs")) {
                    proofs(before.proofs(), after.proofs());
                } else {
                    component("", component, before, after);
                }
            }
        }

        private void axes(List<Axis> before, List<Axis> after) {
            Map<String, Axis> old = new HashMap<>();
            before.forEach(a -> old.put(a.name().toUpperCase(Locale.ROOT), a));
            List<Axis> kept = new ArrayList<>();
            List<Axis> matched = new ArrayList<>();
            for (int i = 0; i < after.size(); i++) {
                Axis now = after.get(i);
                Axis was = old.get(now.name().toUpperCase(Locale.ROOT));
                if (was == null && i < before.size() && after.stream().noneMatch(same(before.get(i))) && alike(before.get(i), now)) {
                    was = before.get(i);
                }
                if (was == null) {
                    axis = now.name();
                    add("Axis", "", "added");
                } else {
                    kept.add(was);
                    matched.add(now);
                }
            }
            for (Axis gone : before) {
                if (!kept.contains(gone)) {
                    axis = gone.name();
                    add("Axis", "there", "removed");
                }
            }
            axis = "";
            List<String> order = before.stream().filter(kept::contains).map(Axis::name).toList();
            List<String> orderNow = kept.stream().map(Axis::name).toList();
            if (!order.equals(orderNow)) {
                add("Order of the axes", String.join(", ", order), String.join(", ", matched.stream().map(Axis::name).toList()));
            }
            for (int i = 0; i < kept.size(); i++) {
                axis = matched.get(i).name();
                unit = matched.get(i).unit().symbol();
                records("", kept.get(i), matched.get(i));
            }
            axis = "";
            unit = "";
        }

        /** Proofs are known by their names; one that stands where another stood that is gone is that one renamed. */
        private void proofs(List<Proof> before, List<Proof> after) {
            List<Proof> found = new ArrayList<>();
            for (int i = 0; i < after.size(); i++) {
                Proof now = after.get(i);
                Proof was = named(before, now.name());
                if (was == null && i < before.size() && named(after, before.get(i).name()) == null) {
                    was = before.get(i);
                }
                String which = before.size() == 1 && after.size() == 1 ? "Proof" : "Proof “" + now.name() + "”";
                if (was == null) {
                    add(which, "", "added");
                } else {
                    found.add(was);
                    records(which, was, now);
                }
            }
            before.stream().filter(p -> !found.contains(p)).forEach(gone -> add("Proof “" + gone.name() + "”", "there", "removed"));
        }

        private static Proof named(List<Proof> proofs, String name) {
            return proofs.stream().filter(p -> p.name().equalsIgnoreCase(name)).findFirst().orElse(null);
        }

        private static Predicate<Axis> same(Axis wanted) {
            return a -> a.name().equalsIgnoreCase(wanted.name());
        }

        private static boolean alike(Axis one, Axis other) {
            int equal = 0;
            RecordComponent[] components = Axis.class.getRecordComponents();
            for (RecordComponent component : components) {
                equal += Objects.equals(value(component, one), value(component, other)) ? 1 : 0;
            }
            return 2 * equal > components.length;
        }

        private void records(String where, Record before, Record after) {
            if (!before.equals(after)) {
                for (RecordComponent component : before.getClass().getRecordComponents()) {
                    component(where, component, before, after);
                }
            }
        }

        private void component(String where, RecordComponent component, Record before, Record after) {
            Object from = value(component, before);
            Object to = value(component, after);
            if (Objects.equals(from, to)) {
                return;
            }
            EntryWords.Named named = EntryWords.of(component);
            String entry = where.isEmpty() ? named.words() : where + ", " + named.words().substring(0, 1).toLowerCase(Locale.ROOT) + named.words().substring(1);
            if (component.getName().equals("source")) {
                program(String.valueOf(from), String.valueOf(to));
            } else if (from instanceof Record one && to instanceof Record other) {
                records(SAYS_ITSELF.contains(component.getName()) ? where : entry, one, other);
            } else if (from instanceof List<?> one && to instanceof List<?> other) {
                if (SAYS_ITSELF.contains(component.getName()) && one.size() == 1 && other.size() == 1) {
                    records(where, (Record) one.get(0), (Record) other.get(0));
                } else {
                    lists(entry, one, other);
                }
            } else {
                add(entry, words(from, named.unit()), words(to, named.unit()));
            }
        }

        private void lists(String entry, List<?> before, List<?> after) {
            if (before.size() != after.size()) {
                add(entry, Integer.toString(before.size()), Integer.toString(after.size()));
                return;
            }
            for (int i = 0; i < before.size(); i++) {
                if (!Objects.equals(before.get(i), after.get(i))) {
                    String which = name(before.get(i), i);
                    if (before.get(i) instanceof Record one && after.get(i) instanceof Record other) {
                        records(entry + " " + which, one, other);
                    } else {
                        add(entry + " " + which, words(before.get(i), ""), words(after.get(i), ""));
                    }
                }
            }
        }

        /** The tag or name of a part of a list, or its number from 1. */
        private static String name(Object part, int index) {
            if (part instanceof Record named) {
                for (String wanted : List.of("tag", "name")) {
                    for (RecordComponent component : named.getClass().getRecordComponents()) {
                        if (component.getName().equals(wanted) && value(component, named) instanceof String text && !text.isBlank()) {
                            return text;
                        }
                    }
                }
            }
            return Integer.toString(index + 1);
        }

        /** The first line that is different, and how many are. */
        private void program(String before, String after) {
            List<String> old = before.lines().toList();
            List<String> now = after.lines().toList();
            int first = 0;
            while (first < Math.min(old.size(), now.size()) && old.get(first).equals(now.get(first))) {
                first++;
            }
            int last = 0;
            while (last < Math.min(old.size(), now.size()) - first && old.get(old.size() - 1 - last).equals(now.get(now.size() - 1 - last))) {
                last++;
            }
            int gone = old.size() - first - last;
            int come = now.size() - first - last;
            int more = (gone == come ? (int) IntStream.range(first, first + gone).filter(line -> !old.get(line).equals(now.get(line))).count() : Math.max(gone, come)) - 1;
            add("Program, line " + (first + 1) + (more > 0 ? " and " + more + " more" : ""), gone > 0 ? shortened(old.get(first).strip()) : "", come > 0 ? shortened(now.get(first).strip()) : "");
        }

        private static Object value(RecordComponent component, Record of) {
            try {
                return component.getAccessor().invoke(of);
            } catch (ReflectiveOperationException impossible) {
                throw new IllegalStateException(impossible);
            }
        }

        private String words(Object value, String itsUnit) {
            String text;
            if (value == null) {
                return "";
            } else if (value instanceof Boolean yes) {
                return yes ? "yes" : "no";
            } else if (value instanceof Bus.Family family) {
                return family.words();
            } else if (value instanceof Terminal.Function function) {
                return function.words();
            } else if (value instanceof Enum<?> choice) {
                return choice.name().toLowerCase(Locale.ROOT).replace('_', ' ');
            } else if (value instanceof Double number) {
                text = Double.isFinite(number) ? new BigDecimal(Double.toString(number)).stripTrailingZeros().toPlainString() : Double.toString(number);
            } else if (value instanceof BigDecimal number) {
                text = number.stripTrailingZeros().toPlainString();
            } else {
                text = shortened(String.valueOf(value));
            }
            String shown = itsUnit.equals("u") || itsUnit.startsWith("u/") ? (unit + itsUnit.substring(1)).strip() : itsUnit;
            return shown.isEmpty() ? text : text + " " + shown;
        }

        private static String shortened(String text) {
            return text.length() <= LONGEST_VALUE ? text : text.substring(0, LONGEST_VALUE - 1) + "…";
        }
    }
}
