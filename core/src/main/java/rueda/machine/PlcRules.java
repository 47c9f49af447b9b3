package rueda.machine;

import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/** Which files and tasks of a controller can be stored; part of {@link MachineRules}. */
final class PlcRules {

    private static final int LONGEST_FILE = 200_000;
    /** The main task gives the axes their orders: it cannot be slower. */
    private static final int LONGEST_MAIN_MICROS = 100_000;
    private static final int MOST_PROGRAMS = 100;

    private final List<EntryFault> faults;

    PlcRules(List<EntryFault> faults) {
        this.faults = faults;
    }

    /** @param cycle of the bus, µs  @return whether the rest of the document can be looked at */
    boolean check(Plc plc, int cycle) {
        boolean files = files(plc);
        if (plc.tasks().isEmpty() || plc.tasks().size() > Plc.MOST_TASKS) {
            refuse("/plc/tasks", "Tasks", plc.tasks().size() + " tasks", "1 to " + Plc.MOST_TASKS + " tasks", "add one, or let one task run several programs");
            return false;
        }
        tasks(plc.tasks(), cycle);
        between("/plc/instructionBudget", "Instruction budget", plc.instructionBudget(), 1000, 10_000_000, "statements");
        between("/plc/statementNanos", "Time of a statement", plc.statementNanos(), 0, 100_000, "ns");
        return files;
    }

    private boolean files(Plc plc) {
        if (plc.files().isEmpty() || plc.files().size() > Plc.MOST_FILES) {
            refuse("/plc/files", "Program files", plc.files().size() + " files", "1 to " + Plc.MOST_FILES + " files", "add one, or put several into one");
            return false;
        }
        boolean whole = true;
        Set<String> names = new HashSet<>();
        long characters = 0;
        for (int i = 0; i < plc.files().size() && whole; i++) {
            whole = file("/plc/files/" + i, plc.files().get(i), names);
            characters += whole ? plc.files().get(i).source().length() : 0;
        }
        if (characters > Plc.MOST_CHARACTERS) {
            refuse("/plc/files", "Program files", characters + " characters", "up to " + Plc.MOST_CHARACTERS + " characters in all files together", "shorten them");
            return false;
        }
        return whole;
    }

    private boolean file(String at, Plc.SourceFile file, Set<String> names) {
        named(at + "/name", "Name of the file", file.name());
        String source = file.source();
        if (source == null) {
            refuse(at + "/source", "Program", "missing", "a text", "write one, or leave it empty");
            return false;
        }
        if (source.length() > LONGEST_FILE) {
            refuse(at + "/source", "Program", source.length() + " characters", "up to 200 000 characters", "shorten it");
        }
        String name = file.name();
        boolean path = name != null && (name.indexOf('/') >= 0 || name.indexOf('\\') >= 0);
        if (name != null && !path && (name.matches(".*[:*?\"<>|\\p{Cntrl}].*") || name.startsWith("."))) {
            refuse(at + "/name", "Name of the file", MachineRules.shortened(name), "a name of a file, such as Conveyor.st", "leave out : * ? \" < > | and a leading point");
        } else if (name != null && !names.add(name.toUpperCase(Locale.ROOT))) {
            refuse(at + "/name", "Name of the file", MachineRules.shortened(name), "a name no other file has", "rename it");
        }
        return true;
    }

    private void tasks(List<Plc.Task> tasks, int cycle) {
        Set<String> names = new HashSet<>();
        Set<String> run = new HashSet<>();
        for (int i = 0; i < tasks.size(); i++) {
            Plc.Task task = tasks.get(i);
            String at = "/plc/tasks/" + i;
            named(at + "/name", "Name of the task", task.name());
            if (task.name() != null && !names.add(task.name().toUpperCase(Locale.ROOT))) {
                refuse(at + "/name", "Name of the task", MachineRules.shortened(task.name()), "a name no other task has", "rename it");
            }
            start(at, task, i == 0, cycle);
            between(at + "/priority", "Priority", task.priority(), 0, Plc.Task.LOWEST_PRIORITY, "");
            between(at + "/watchdogMicros", "Watchdog", task.watchdogMicros(), 0, Plc.Task.LONGEST_INTERVAL_MICROS, "µs");
            if (task.programs().size() > MOST_PROGRAMS) {
                refuse(at + "/programs", "Programs of the task", task.programs().size() + " programs", "up to " + MOST_PROGRAMS, "remove some");
            }
            for (int j = 0; j < Math.min(MOST_PROGRAMS, task.programs().size()); j++) {
                program(at + "/programs/" + j, task.programs().get(j), run);
            }
        }
    }

    private void program(String at, String program, Set<String> run) {
        if (program == null || program.length() > MachineRules.LONGEST_AXIS_NAME || !MachineRules.IDENTIFIER.matcher(program).matches()) {
            refuse(at, "Program of the task", MachineRules.shortened(String.valueOf(program)), "the name of a PROGRAM", "choose one");
        } else if (!run.add(program.toUpperCase(Locale.ROOT))) {
            refuse(at, "Program of the task", program, "a program that no other task runs", "take it out of one of them");
        }
    }

    private void start(String at, Plc.Task task, boolean main, int cycle) {
        if (task.onTag() == null) {
            refuse(at + "/onTag", "Tag that starts the task", "missing", "the name of a BOOL tag, or empty", "leave it empty");
            return;
        }
        int interval = task.intervalMicros();
        if (main && !task.onTag().isEmpty()) {
            refuse(at + "/onTag", "Tag that starts the task", MachineRules.shortened(task.onTag()), "none for the first task, which has an interval", "leave it empty, and let another task start on the tag");
        } else if (!task.onTag().isEmpty()) {
            if (task.onTag().length() > 200) {
                refuse(at + "/onTag", "Tag that starts the task", MachineRules.shortened(task.onTag()), "up to 200 characters", "choose a BOOL tag");
            }
            if (interval != 0) {
                refuse(at + "/intervalMicros", "Task interval", interval + " µs", "0 for a task that a tag starts", "enter 0, or leave the tag empty");
            }
        } else if (cycle > 0) {
            int most = main ? LONGEST_MAIN_MICROS : Plc.Task.LONGEST_INTERVAL_MICROS;
            if (interval < cycle || interval > most || interval % cycle != 0) {
                refuse(at + "/intervalMicros", "Task interval", interval + " µs", "a multiple of the bus cycle up to " + (main ? "100 000" : "10 000 000") + " µs", "choose " + cycle + " µs");
            }
        }
    }

    private void named(String field, String label, String name) {
        if (name == null) {
            refuse(field, label, "missing", "1 to 80 characters without / and \\", "enter a name");
        } else if (name.isBlank() || name.length() > 80 || name.indexOf('/') >= 0 || name.indexOf('\\') >= 0) {
            refuse(field, label, MachineRules.shortened(name), "1 to 80 characters without / and \\", "enter a name");
        }
    }

    private void between(String field, String label, int value, int low, int high, String unit) {
        if (value < low || value > high) {
            refuse(field, label, (value + " " + unit).strip(), (low + " to " + high + " " + unit).strip(), "enter such a value");
        }
    }

    private void refuse(String field, String label, String value, String allowed, String mend) {
        faults.add(new EntryFault(field, label, value, allowed, mend));
    }
}
