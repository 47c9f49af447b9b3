package rueda.app.live;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.List;
import rueda.bench.Bench;
import rueda.guard.AxisWatch;
import rueda.guard.Breach;
import rueda.guard.GuardLog;
import rueda.guard.GuardPhase;
import rueda.machine.Axis;
import rueda.machine.Machine;

/**
 * Requests and guards on the bench.
 *
 * @param requests in the order of the document
 * @param watches  of the axes that have a guard
 * @param changes  how often a guard has changed: the log is worth asking for again when it is another number
 */
record GuardsNow(List<RequestNow> requests, List<GuardNow> watches, long changes) {

    /** @param firstOpen channel 1 asks  @param secondOpen channel 2 asks */
    record RequestNow(String name, boolean firstOpen, boolean secondOpen) {
    }

    /** @param axis its name  @param phase of the guard  @param words what it does  @param torque the motor may have torque */
    record GuardNow(String axis, GuardPhase phase, String words, boolean torque) {
    }

    /** @param time s on the bench's clock  @param axis its name  @param words what its guard did then, with numbers */
    record Told(double time, String axis, String words) {
    }

    static GuardsNow of(Bench bench) {
        Machine machine = bench.machine();
        List<RequestNow> requests = new ArrayList<>();
        for (int i = 0; i < machine.safetyRequests().size(); i++) {
            requests.add(new RequestNow(machine.safetyRequests().get(i).name(), !bench.closed(i, true), !bench.closed(i, false)));
        }
        List<GuardNow> watches = new ArrayList<>();
        for (int i = 0; i < machine.axes().size(); i++) {
            AxisWatch watch = bench.watch(i);
            if (watch != null) {
                String words = (watch.leading() == null ? "" : watch.leading().words() + ": ") + watch.phase().words();
                watches.add(new GuardNow(machine.axes().get(i).name(), watch.phase(), watch.breach() == Breach.NONE ? words : words + ": " + broken(machine.axes().get(i), watch.breach(), watch.breachSpeed(), watch.breachLimit()), watch.torque()));
            }
        }
        return new GuardsNow(List.copyOf(requests), List.copyOf(watches), bench.guardChanges());
    }

    /** The last hundred, newest first. */
    static List<Told> log(Bench bench) {
        List<Told> all = new ArrayList<>();
        for (GuardLog.Entry entry : bench.guardLog()) {
            Axis axis = bench.machine().axes().get(entry.axis());
            String unit = axis.unit().symbol();
            String what = entry.phase() == GuardPhase.FREE ? "free again" : (entry.function() == null ? "" : entry.function().words() + ": ") + entry.phase().words();
            String broken = entry.phase() == GuardPhase.TRIPPED ? ", " + broken(axis, entry.breach(), entry.speed(), entry.limit()) : ", at " + plain(entry.speed()) + " " + unit + "/s";
            all.add(0, new Told(entry.time() * 1e-9, axis.name(), what + broken + ", place " + plain(entry.position()) + " " + unit));
        }
        return all;
    }

    private static String broken(Axis axis, Breach breach, double speed, double limit) {
        String unit = axis.unit().symbol();
        return breach.words() + ", " + plain(speed) + " " + unit + "/s, allowed " + plain(limit) + " " + (breach == Breach.LEFT_WINDOW ? unit : unit + "/s");
    }

    private static String plain(double value) {
        return value == 0 ? "0" : new BigDecimal(value).round(new MathContext(4)).stripTrailingZeros().toPlainString().replace('-', '\u2212');
    }
}
