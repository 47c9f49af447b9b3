package rueda.proof.fastest;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import rueda.machine.Axis;
import rueda.machine.Control;
import rueda.machine.Dynamics;
import rueda.machine.Machine;
import rueda.machine.MoveEntry;
import rueda.machine.Plc;

/**
 * A number of a machine that may be changed.
 *
 * @param key   names it within its machine
 * @param words what it is
 * @param unit  empty for none
 * @param value as it stands
 * @param low   least that is worth a try
 * @param high  most that is
 */
public record Freedom(String key, String words, String unit, double value, double low, double high) {

    private static final Pattern COMMENT = Pattern.compile("\\(\\*.*?\\*\\)|/\\*.*?\\*/|//[^\n]*", Pattern.DOTALL);
    private static final Pattern DECLARED = Pattern.compile("(\\w+)\\s*:\\s*L?REAL\\s*:=\\s*([0-9][0-9_]*(?:\\.[0-9_]+)?(?:[eE][+-]?[0-9]+)?)", Pattern.CASE_INSENSITIVE);
    private static final Pattern GIVEN = Pattern.compile("\\b(Velocity|Acceleration|Deceleration|Jerk)\\s*:=\\s*([0-9][0-9_]*(?:\\.[0-9_]+)?(?:[eE][+-]?[0-9]+)?)", Pattern.CASE_INSENSITIVE);
    private static final Pattern RESTS = Pattern.compile("\\b(PT)\\s*:=\\s*T(?:IME)?#([0-9][0-9_]*(?:\\.[0-9]+)?)(ms|s)\\b", Pattern.CASE_INSENSITIVE);

    /** All of a machine: numbers of its program first, then those of its axes. */
    public static List<Freedom> of(Machine machine) {
        List<Freedom> all = new ArrayList<>();
        for (int f = 0; f < machine.plc().files().size(); f++) {
            String source = machine.plc().files().get(f).source();
            String name = machine.plc().files().size() > 1 ? ", " + machine.plc().files().get(f).name() : "";
            String code = COMMENT.matcher(source).replaceAll(comment -> comment.group().replaceAll("[^\n]", " "));
            for (Pattern pattern : List.of(DECLARED, GIVEN, RESTS)) {
                Matcher match = pattern.matcher(code);
                while (match.find()) {
                    double value = Double.parseDouble(match.group(2).replace("_", ""));
                    int line = 1 + (int) source.substring(0, match.start(2)).chars().filter(c -> c == '\n').count();
                    String unit = pattern == RESTS ? match.group(3) : "";
                    if (value > 0) {
                        all.add(new Freedom("program:" + f + ":" + match.start(2) + ":" + match.group(2), match.group(1) + " in line " + line + name, unit, value, pattern == RESTS ? 0.2 * value : 0.3 * value, pattern == RESTS ? value : 2 * value));
                    }
                }
            }
        }
        for (int a = 0; a < machine.axes().size(); a++) {
            ofAxis(machine.axes().get(a), a, all);
        }
        return all;
    }

    private static void ofAxis(Axis axis, int a, List<Freedom> all) {
        String u = axis.unit().symbol();
        String at = "axis:" + a + ":";
        Dynamics max = axis.limits().max();
        all.add(new Freedom(at + "positionGain", axis.name() + ": position gain", "1/s", axis.control().positionGain(), 0.5 * axis.control().positionGain(), 2 * axis.control().positionGain()));
        all.add(new Freedom(at + "velocityGain", axis.name() + ": velocity gain", "N·m·s/rad", axis.control().velocityGain(), 0.5 * axis.control().velocityGain(), 2 * axis.control().velocityGain()));
        for (int e = 0; e < axis.moves().entries().size(); e++) {
            MoveEntry entry = axis.moves().entries().get(e);
            String called = axis.name() + ", entry " + e + (entry.name().isEmpty() ? "" : " “" + entry.name() + "”") + ": ";
            String key = "entry:" + a + ":" + e + ":";
            List<String> slots = entry.kind().slots();
            if (slots.contains("speed") && entry.speed() > 0) {
                all.add(new Freedom(key + "speed", called + "speed", u + "/s", entry.speed(), 0.3 * entry.speed(), max.speed()));
            }
            if (slots.contains("acceleration") && entry.acceleration() > 0) {
                all.add(new Freedom(key + "acceleration", called + "acceleration", u + "/s²", entry.acceleration(), 0.3 * entry.acceleration(), max.acceleration()));
            }
            if (entry.rest() > 0) {
                all.add(new Freedom(key + "rest", called + "rest", "s", entry.rest(), 0.2 * entry.rest(), entry.rest()));
            }
        }
    }

    /** A machine with other values. @param values one for each freedom, in its unit */
    public static Machine changed(Machine machine, List<Freedom> freedoms, double[] values) {
        Machine changed = machine;
        /* from the end on, so that places before stay where they are */
        List<Integer> order = new ArrayList<>();
        for (int i = 0; i < freedoms.size(); i++) {
            order.add(i);
        }
        order.sort((x, y) -> Integer.compare(freedoms.get(y).place(), freedoms.get(x).place()));
        for (int i : order) {
            changed = freedoms.get(i).in(changed, values[i]);
        }
        return changed;
    }

    /** JSON pointer of its value; empty for one that stands in a text of the program. */
    public String pointer() {
        String[] parts = key.split(":");
        return switch (parts[0]) {
            case "axis" -> "/axes/" + parts[1] + "/control/" + parts[2];
            case "entry" -> "/axes/" + parts[1] + "/moves/entries/" + parts[2] + "/" + parts[3];
            default -> "";
        };
    }

    private int place() {
        return key.startsWith("program:") ? Integer.parseInt(key.split(":")[2]) : -1;
    }

    private Machine in(Machine machine, double changed) {
        String[] parts = key.split(":");
        int first = Integer.parseInt(parts[1]);
        if (parts[0].equals("program")) {
            List<Plc.SourceFile> files = new ArrayList<>(machine.plc().files());
            String source = files.get(first).source();
            int from = Integer.parseInt(parts[2]);
            files.set(first, new Plc.SourceFile(files.get(first).name(), source.substring(0, from) + written(changed, parts[3]) + source.substring(from + parts[3].length())));
            return machine.withPlc(machine.plc().withFiles(files));
        }
        Axis axis = machine.axes().get(first);
        if (parts[0].equals("axis")) {
            Control c = axis.control();
            return machine.withAxis(first, axis.withControl(parts[2].equals("positionGain") ? new Control(changed, c.velocityGain(), c.integralTime(), c.feedForward(), c.torqueForward())
                    : new Control(c.positionGain(), changed, c.integralTime(), c.feedForward(), c.torqueForward())));
        }
        int number = Integer.parseInt(parts[2]);
        List<MoveEntry> entries = new ArrayList<>(axis.moves().entries());
        MoveEntry entry = entries.get(number);
        entries.set(number, switch (parts[3]) {
            case "speed" -> entry.withSpeed(changed);
            case "acceleration" -> entry.withAcceleration(changed);
            default -> entry.withRest(changed);
        });
        return machine.withAxis(first, axis.withMoves(axis.moves().withEntries(entries)));
    }

    /** A number as it stood there: with a point where there was one. */
    private static String written(double value, String before) {
        String plain = new BigDecimal(value, new MathContext(4)).stripTrailingZeros().toPlainString();
        return before.contains(".") && !plain.contains(".") ? plain + ".0" : before.contains(".") ? plain : Long.toString(Math.round(value));
    }

    /** The value as it would be written. */
    double rounded(double wanted) {
        return key.startsWith("program:") ? Double.parseDouble(written(wanted, key.split(":")[3])) : new BigDecimal(wanted, new MathContext(4)).doubleValue();
    }
}
