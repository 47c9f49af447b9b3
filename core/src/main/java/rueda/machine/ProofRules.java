package rueda.machine;

import java.util.List;
import java.util.stream.Collectors;

/** Says of every entry of a proof whether it can be stored. What its sentences name is looked at when they are read, against the signals of the run. */
final class ProofRules {

    private static final int MOST_EXPECTATIONS = 1000;
    private static final int MOST_STEPS = 500;
    private static final int MOST_CONDITIONS = 100;
    private static final int MOST_VALUES = 1000;
    private static final int LONGEST_NAME = 200;
    private static final int LONGEST_PURPOSE = 1000;
    private static final double LONGEST_RUN = 7200;

    private final List<EntryFault> faults;
    private final Machine machine;

    ProofRules(List<EntryFault> faults, Machine machine) {
        this.faults = faults;
        this.machine = machine;
    }

    /** @return false when there are so many sentences that none of them is looked at */
    boolean fewEnough(String place, Proof proof) {
        return few(place + "/expectations", "Expectations", proof.expectations(), MOST_EXPECTATIONS) && few(place + "/script", "Script", proof.script(), MOST_STEPS)
                && few(place + "/conditions", "Conditions", proof.conditions(), MOST_CONDITIONS);
    }

    private boolean few(String field, String label, List<?> list, int most) {
        if (list.size() > most) {
            refuse(field, label, list.size() + " sentences", "up to " + most, "remove some");
        }
        return list.size() <= most;
    }

    void check(String place, Proof proof) {
        if (!missing(place + "/name", "Name of the proof", proof.name()) && (proof.name().isBlank() || proof.name().length() > LONGEST_NAME)) {
            refuse(place + "/name", "Name of the proof", MachineRules.shortened(proof.name()), "1 to " + LONGEST_NAME + " characters", "enter a name");
        }
        if (!missing(place + "/group", "Group of the proof", proof.group()) && proof.group().length() > MachineRules.LONGEST_AXIS_NAME) {
            refuse(place + "/group", "Group of the proof", MachineRules.shortened(proof.group()), "up to " + MachineRules.LONGEST_AXIS_NAME + " characters", "shorten it");
        }
        if (!missing(place + "/purpose", "Purpose of the proof", proof.purpose()) && proof.purpose().length() > LONGEST_PURPOSE) {
            refuse(place + "/purpose", "Purpose of the proof", MachineRules.shortened(proof.purpose()), "up to " + LONGEST_PURPOSE + " characters", "shorten it");
        }
        between(place + "/duration", "Duration", proof.duration(), 0.1, LONGEST_RUN, "s", "enter how long the program runs");
        for (int i = 0; i < proof.script().size(); i++) {
            step(place + "/script/" + i, proof.script().get(i));
        }
        for (int i = 0; i < proof.expectations().size(); i++) {
            expectation(place + "/expectations/" + i, proof.expectations().get(i));
        }
        for (int i = 0; i < proof.conditions().size(); i++) {
            condition(place + "/conditions/" + i, proof, proof.conditions().get(i));
        }
        if (!missing(place + "/plan", "Plan", proof.plan())) {
            plan(place + "/plan", proof);
        }
    }

    // ---- expectations

    private void expectation(String at, Expectation e) {
        if (e.kind() == null) {
            refuse(at + "/kind", "Expectation", "none", "a kind of sentence", "choose one");
            return;
        }
        e.slots().forEach(slot -> slot(at, e, slot));
    }

    private void slot(String at, Expectation e, String slot) {
        String field = at + "/" + slot;
        switch (slot) {
            case "axis" -> axis(field, "Axis", e.axis());
            case "other" -> axis(field, "Other axis", e.other());
            case "after" -> text(field, "Event", e.after(), "an event, such as the name of a BOOL of the program");
            case "then" -> text(field, "Later event", e.then(), "an event, such as the name of a BOOL of the program");
            case "when" -> text(field, "Condition", e.when(), "what must hold, such as Shuttle.position > 100");
            case "signal" -> text(field, "Value", e.signal(), "a number, such as Shuttle.position");
            case "text" -> text(field, "Sentence", e.text(), "what must be true, such as ALWAYS(Door)");
            case "position" -> finite(field, "Position", e.position());
            case "tolerance" -> positive(field, "Tolerance", e.tolerance());
            case "within" -> positive(field, "Time", e.within());
            case "stays" -> notNegative(field, "Stays", e.stays());
            case "limit" -> positive(field, "Limit", e.limit());
            case "atLeast" -> notNegative(field, "Shortest time", e.atLeast());
            case "low" -> low(field, "Lower bound", e.low(), e.high());
            case "high" -> finite(field, "Upper bound", e.high());
            case "otherLow" -> low(field, "Lower bound of the other axis", e.otherLow(), e.otherHigh());
            case "otherHigh" -> finite(field, "Upper bound of the other axis", e.otherHigh());
            case "distance" -> notNegative(field, "Distance", e.distance());
            case "quantity" -> chosen(field, "Quantity", e.quantity(), "speed, torque, following error or phase");
            case "span" -> chosen(field, "While", e.span(), "all the time, after an event or while something holds");
            case "recording" -> text(field, "Recording", e.recording(), "the name of a recording");
            case "alignment" -> chosen(field, "How it is laid over the run", e.alignment(), "at its own times, where an event comes first, or where it fits best");
            case "end" -> chosen(field, "End", e.end(), "how the axis stands at the end");
            default -> throw new IllegalStateException(slot);
        }
        if (slot.equals("within") && e.atLeast() != null && e.within() != null && e.kind() == Expectation.Kind.TIME && e.within() < e.atLeast()) {
            refuse(field, "Longest time", e.within() + " s", "the shortest time, " + e.atLeast() + " s, or more", "enter a longer time");
        }
        if (e.kind() == Expectation.Kind.COUNT && (slot.equals("low") || slot.equals("high"))) {
            count(field, slot.equals("low") ? e.low() : e.high());
        }
    }

    private void count(String field, Double value) {
        if (value != null && (value < 0 || value != Math.rint(value))) {
            refuse(field, "Times", String.valueOf(value), "a whole number, 0 or more", "enter how often");
        }
    }

    private void low(String field, String label, Double low, Double high) {
        finite(field, label, low);
        if (low != null && high != null && low > high) {
            refuse(field, label, String.valueOf(low), "up to the upper bound, " + high, "enter a lower number");
        }
    }

    // ---- script

    private void step(String at, ScriptStep step) {
        boolean none = chosen(at + "/start", "Begin", step.start(), "when it begins") | chosen(at + "/does", "What happens", step.does(), "what happens")
                | chosen(at + "/ending", "For how long", step.ending(), "for how long it goes on");
        if (none) {
            return;
        }
        if (step.does().lasts() && !step.does().endings().contains(step.ending())) {
            refuse(at + "/ending", "For how long", step.ending().words(), step.does().endings().stream().map(ScriptStep.Ending::words).collect(Collectors.joining(", ")), "choose one");
        }
        for (String slot : step.slots()) {
            String field = at + "/" + slot;
            switch (slot) {
                case "time" -> {
                    if (step.start() == ScriptStep.Start.EVERY) {
                        positive(field, "Period", step.time());
                    } else {
                        notNegative(field, "Time", step.time());
                    }
                }
                case "when" -> text(field, "Condition", step.when(), "what becomes true, such as Shuttle.position > 100");
                case "until" -> text(field, "Until", step.until(), "what becomes true, such as Shuttle.standstill");
                case "target" -> text(field, "What is set", step.target(), "a tag, a variable of the program or an input of an axis");
                case "value" -> text(field, "Value", step.value(), "a value, such as TRUE or 7");
                case "axis" -> axis(field, "Axis", step.axis());
                case "lasts" -> positive(field, "Time that it lasts", step.lasts());
                case "request" -> {
                    if (machine.safetyRequests().stream().noneMatch(r -> r.name() != null && r.name().equals(step.request()))) {
                        refuse(field, "Request", MachineRules.shortened(String.valueOf(step.request())), "a request of the machine", machine.safetyRequests().isEmpty() ? "add one in the stage Guard" : "choose one");
                    }
                }
                case "mistake" -> chosen(field, "What breaks", step.mistake(), "what breaks");
                case "amount" -> {
                    if (step.does() == ScriptStep.Does.LOAD) {
                        notNegative(field, "Load", step.amount());
                    } else {
                        finite(field, step.does() == ScriptStep.Does.TURN ? "Way" : "Force", step.amount());
                    }
                }
                default -> throw new IllegalStateException(slot);
            }
        }
    }

    // ---- conditions

    private void condition(String at, Proof proof, Condition condition) {
        if (chosen(at + "/of", "Condition", condition.of(), "what is varied")) {
            return;
        }
        if (condition.of() == Circumstance.MOMENT) {
            if (condition.sentence() == null || condition.sentence() < 0 || condition.sentence() >= proof.script().size()) {
                refuse(at + "/sentence", "Sentence of the script", String.valueOf(condition.sentence()), proof.script().isEmpty() ? "none: the script is empty" : "0 to " + (proof.script().size() - 1), "choose a sentence");
            }
        } else if (condition.of().ofAxis()) {
            axis(at + "/axis", "Axis", condition.axis());
        }
        if (condition.of() == Circumstance.MISTAKE) {
            if (condition.mistakes().isEmpty() || condition.mistakes().contains(null)) {
                refuse(at + "/mistakes", "What is wrong", "none", "at least one mistake", "choose one");
            }
            return;
        }
        if ((condition.from() == null) != (condition.to() == null)) {
            refuse(at + (condition.from() == null ? "/from" : "/to"), "Range", "none", "both ends of a range, or neither", "enter it");
        } else if (condition.hasRange()) {
            range(at, condition);
        } else if (condition.values().isEmpty() || condition.values().size() > MOST_VALUES) {
            refuse(at + "/values", "Values", condition.values().size() + " values", "1 to " + MOST_VALUES, "enter values, or a range");
        } else {
            for (int i = 0; i < condition.values().size(); i++) {
                amount(at + "/values/" + i, condition.of(), condition.values().get(i));
            }
        }
    }

    private void range(String at, Condition condition) {
        amount(at + "/from", condition.of(), condition.from());
        amount(at + "/to", condition.of(), condition.to());
        if (condition.from() > condition.to()) {
            refuse(at + "/from", "Begin of the range", String.valueOf(condition.from()), "up to its end, " + condition.to(), "enter a lower number");
        }
        if (condition.steps() == null || condition.steps() < 2 || condition.steps() > MOST_VALUES) {
            refuse(at + "/steps", "Values of the range", String.valueOf(condition.steps()), "2 to " + MOST_VALUES, "enter how many values");
        }
    }

    private void amount(String field, Circumstance of, Double value) {
        finite(field, "Value", value);
        if (value != null && Double.isFinite(value) && (value < of.least() || value > of.most())) {
            refuse(field, "Value", value + " " + of.unit(), of.least() + " to " + of.most() + " " + of.unit(), "enter a number in this range");
        }
    }

    private void plan(String at, Proof proof) {
        Plan plan = proof.plan();
        if (plan.kind() == Plan.Kind.STOP && plan.every() >= 0.001 && (2 + machine.safetyRequests().size()) * proof.duration() / plan.every() > Plan.MOST_RUNS) {
            refuse(at + "/every", "Time between moments", plan.every() + " s", String.format(java.util.Locale.ROOT, "%.3g s or more, for at most %d runs", (2 + machine.safetyRequests().size()) * proof.duration() / Plan.MOST_RUNS, Plan.MOST_RUNS), "enter a longer time, or shorten the proof");
        }
        chosen(at + "/kind", "Plan", plan.kind(), "how the proof is repeated");
        if (plan.runs() < 1 || plan.runs() > Plan.MOST_RUNS) {
            refuse(at + "/runs", "Runs", Integer.toString(plan.runs()), "1 to " + Plan.MOST_RUNS, "enter a whole number in this range");
        }
        between(at + "/every", "Time between moments", plan.every(), 0.001, LONGEST_RUN, "s", "enter a time");
    }

    // ---- entries

    private void axis(String field, String label, String name) {
        if (name == null || machine.axis(name).isEmpty()) {
            refuse(field, label, MachineRules.shortened(String.valueOf(name)), "an axis of this machine", "choose an axis");
        }
    }

    private void text(String field, String label, String text, String allowed) {
        int length = text == null ? 0 : text.strip().length();
        if (length == 0 || length > Expectation.LONGEST_TEXT) {
            refuse(field, label, length == 0 ? "none" : length + " characters", allowed + ", 1 to " + Expectation.LONGEST_TEXT + " characters", length == 0 ? "write it" : "shorten it");
        }
    }

    /** @return whether there is none */
    private boolean chosen(String field, String label, Object value, String allowed) {
        if (value == null) {
            refuse(field, label, "none", allowed, "choose one");
        }
        return value == null;
    }

    private boolean missing(String field, String label, Object value) {
        if (value == null) {
            refuse(field, label, "missing", "a value", "enter it");
        }
        return value == null;
    }

    private void between(String field, String label, double value, double low, double high, String unit, String mend) {
        if (!(value >= low && value <= high)) {
            refuse(field, label, value + " " + unit, low + " to " + high + " " + unit, mend);
        }
    }

    private void positive(String field, String label, Double value) {
        if (value == null || !(value > 0) || value.isInfinite()) {
            refuse(field, label, String.valueOf(value), "greater than 0", "enter a number");
        }
    }

    private void notNegative(String field, String label, Double value) {
        if (value == null || !(value >= 0) || value.isInfinite()) {
            refuse(field, label, String.valueOf(value), "0 or more", "enter a number");
        }
    }

    private void finite(String field, String label, Double value) {
        if (value == null || !Double.isFinite(value)) {
            refuse(field, label, String.valueOf(value), "a number", "enter a number");
        }
    }

    private void refuse(String field, String label, String value, String allowed, String mend) {
        faults.add(new EntryFault(field, label, value, allowed, mend));
    }
}
