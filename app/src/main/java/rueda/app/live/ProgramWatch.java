package rueda.app.live;

import java.util.ArrayList;
import java.util.List;
import rueda.plc.Inspector;
import rueda.plc.Resource;
import rueda.plc.Task;
import rueda.plc.run.StatementPlace;
import rueda.plc.run.Tracer;
import rueda.plc.type.Type;

/** What a person looks at in a program that runs: breakpoints, expressions, values that are forced. Guarded by the lock of its bench. */
final class ProgramWatch {

    /** What a person wants of a program, whichever bench runs it. */
    record Wanted(List<Breakpoint> breakpoints, List<String> watches, List<String> traced) {
        static final Wanted NOTHING = new Wanted(List.of(), List.of(), List.of());

        Wanted withBreakpoints(List<Breakpoint> changed) {
            return new Wanted(List.copyOf(changed), watches, traced);
        }

        Wanted withWatches(List<String> changed) {
            return new Wanted(breakpoints, List.copyOf(changed), traced);
        }

        Wanted withTraced(List<String> changed) {
            return new Wanted(breakpoints, watches, List.copyOf(changed));
        }
    }

    /**
     * A line in which the program is to be held.
     *
     * @param line      from 1
     * @param condition expression of type BOOL; empty: always
     */
    record Breakpoint(String file, int line, String condition) {
    }

    /**
     * @param standsAt line from there on that has a statement, 0 when there is none
     * @param fault    what is wrong with its condition; empty for nothing
     */
    record BreakpointNow(String file, int line, int standsAt, String condition, String fault) {
    }

    /** @param value what it is now, or why it cannot be worked out  @param known false: it cannot be worked out */
    record WatchNow(String expression, String value, boolean known) {
    }

    /** A call that has not returned. @param line that runs in it */
    record StackLevel(String unit, String file, int line) {
    }

    /**
     * A task now.
     *
     * @param programs      what it runs
     * @param micros        estimated time of the last cycle, µs
     * @param longestMicros of the longest cycle, µs
     * @param longestFile   text in which most of its statements ran; empty before the first
     * @param longestLine   line of it, 0 before the first
     * @param latestMicros  longest time from when it was to run to its start, µs
     * @param missed        starts that fell into a cycle that had not ended
     */
    record TaskNow(String name, List<String> programs, int statements, double micros, double longestMicros, String longestFile, int longestLine, double latestMicros, long cycles, long missed) {
    }

    /**
     * @param stack  where it is held, the innermost call first; empty while it is not held in its middle
     * @param retained how many values stay when the controller is switched off
     * @param traced names of values that the blocks of samples carry behind the signals of the axes
     */
    record ProgramNow(List<TaskNow> tasks, List<StackLevel> stack, List<Inspector.Forced> forces, List<WatchNow> watches, List<BreakpointNow> breakpoints, List<TracedValue> traced, int retained) {
    }

    /** @param bool it is on or off */
    record TracedValue(String name, boolean bool) {
    }

    private record Watch(String expression, String unit, Inspector.Watched made) {
    }

    private final Resource resource;
    private Wanted wanted = Wanted.NOTHING;
    private final List<BreakpointNow> breakpoints = new ArrayList<>();
    private final List<Watch> watches = new ArrayList<>();
    /** unit for whose names the watches were made */
    private String unit = "";

    ProgramWatch(Resource resource) {
        this.resource = resource;
    }

    void want(Wanted changed) {
        if (!changed.breakpoints().equals(wanted.breakpoints())) {
            breakpoints(changed.breakpoints());
        }
        wanted = changed;
        watches.clear();
        wanted.watches().forEach(expression -> watches.add(new Watch(expression, unit, resource.inspector().watch(expression, unit))));
    }

    private void breakpoints(List<Breakpoint> all) {
        Tracer tracer = resource.tracer();
        breakpoints.clear();
        tracer.clear();
        for (Breakpoint breakpoint : all) {
            StatementPlace place = tracer.nearest(breakpoint.file(), breakpoint.line());
            String condition = breakpoint.condition().strip();
            String fault = "";
            if (place != null && condition.isEmpty()) {
                tracer.breakpoint(place.file(), place.line(), null);
            } else if (place != null) {
                Inspector.Watched made = resource.inspector().watch(condition, place.unit());
                fault = made.fault() != null ? made.fault() : made.type().elementary() != Type.BOOL ? "A condition is of type BOOL, this is " + made.type().written() + "." : "";
                if (fault.isEmpty()) {
                    tracer.breakpoint(place.file(), place.line(), resource.inspector().holds(made));
                }
            }
            breakpoints.add(new BreakpointNow(breakpoint.file(), breakpoint.line(), place == null ? 0 : place.line(), breakpoint.condition(), fault));
        }
    }

    ProgramNow now() {
        List<Tracer.Level> stack = resource.held() ? resource.tracer().stack() : List.of();
        String around = stack.isEmpty() ? resource.program().programs().get(0) : stack.get(0).place().unit();
        if (!around.equals(unit)) {
            unit = around;
            want(wanted);
        }
        int base = stack.isEmpty() ? 0 : stack.get(0).base();
        return new ProgramNow(resource.tasks().stream().map(ProgramWatch::now).toList(),
                stack.stream().map(level -> new StackLevel(resource.program().unitName(level.place().unit()), level.place().file(), level.place().line())).toList(),
                resource.inspector().forced(), watches.stream().map(w -> new WatchNow(w.expression(), resource.inspector().text(w.made(), base), w.made().fault() == null)).toList(), List.copyOf(breakpoints), traced(), resource.program().retained().size());
    }

    /** Numbers and bits that the program that runs has. */
    List<TracedValue> traced() {
        return wanted.traced().stream().flatMap(name -> resource.program().variable(name).stream()).filter(v -> v.type() != Type.AXIS_REF && !v.type().isText()).map(v -> new TracedValue(v.name(), v.type() == Type.BOOL)).toList();
    }

    private static TaskNow now(Task task) {
        StatementPlace longest = task.longestIn();
        return new TaskNow(task.name(), task.programs(), task.statements(), task.took() * 1e-3, task.longest() * 1e-3, longest == null ? "" : longest.file(), longest == null ? 0 : longest.line(), task.latest() * 1e-3, task.cycles(), task.missed());
    }
}
