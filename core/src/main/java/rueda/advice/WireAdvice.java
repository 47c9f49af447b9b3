package rueda.advice;

import static rueda.advice.Numbers.significant;

import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import rueda.advice.Finding.Mend;
import rueda.advice.Finding.Severity;
import rueda.drive.HomingMethod;
import rueda.machine.Axis;
import rueda.machine.Following;
import rueda.machine.Terminal;
import rueda.machine.Terminal.Function;
import rueda.machine.Terminal.Kind;

/** Consequences of the wiring: how late each switch answers, and what is missing or doubled. */
public final class WireAdvice extends AxisAdvice {


    private WireAdvice(Axis axis, String pointer) {
        super("wire", axis, pointer);
    }

    /** @param pointer JSON pointer of the axis in the document */
    public static Advice of(Axis axis, String pointer) {
        WireAdvice advice = new WireAdvice(axis, pointer);
        advice.doubts();
        advice.doubled();
        advice.limits();
        advice.homing();
        advice.brake();
        advice.secondEncoder();
        if (advice.nothingFound()) {
            advice.finding(Severity.GOOD, "Every switch this axis needs has its terminal.", "A broken wire at a limit switch stops the axis.", null);
        }
        return advice.advice();
    }

    private String at(Terminal terminal) {
        return pointer + "/wiring/terminals/" + axis.wiring().indexOf(terminal);
    }

    /** Position doubt = speed × response time (common practice, no source). */
    private void doubts() {
        for (Terminal terminal : axis.wiring().terminals()) {
            if (!terminal.kind().digitalInput() || terminal.function() == Function.NONE) {
                continue;
            }
            figure(terminal.name() + " answers in", significant(terminal.responseMicros(), 6), "µs", "hardware " + terminal.kind().hardwareMicros() + " µs + filter " + terminal.filterMicros() + " µs");
            if (terminal.function().forProgram()) {
                figure(terminal.name() + " stands in", "2033h bit " + terminal.function().bit(), "", "the program reads it there, whatever terminal it is wired to");
            }
            double speed = switch (terminal.function()) {
                case NEGATIVE_LIMIT, POSITIVE_LIMIT, QUICK_STOP -> axis.limits().max().speed();
                case REFERENCE_CAM -> axis.homing().searchSpeed();
                default -> 0;
            };
            if (speed > 0) {
                double doubt = speed * terminal.responseMicros() * 1e-6;
                String at = terminal.function() == Function.REFERENCE_CAM ? "search speed" : "highest speed";
                figure("Doubt of the " + terminal.function().words(), significant(doubt, 3), unit,
                        significant(speed, 5) + " " + unit + "/s (" + at + ") × " + terminal.responseMicros() + " µs");
            }
        }
    }

    private void doubled() {
        Map<Function, Terminal> seen = new HashMap<>();
        for (Terminal terminal : axis.wiring().terminals()) {
            Terminal first = terminal.function() == Function.NONE ? null : seen.putIfAbsent(terminal.function(), terminal);
            if (first != null) {
                finding(Severity.FAULT, first.name() + " and " + terminal.name() + " have the same function.", "Either would act as " + terminal.function().words() + ".",
                        Mend.set("Free " + terminal.name(), at(terminal) + "/function", Function.NONE));
            }
        }
    }

    private void limits() {
        if (axis.endless()) {
            return;
        }
        for (Function limit : List.of(Function.NEGATIVE_LIMIT, Function.POSITIVE_LIMIT)) {
            Terminal terminal = axis.wiring().terminal(limit).orElse(null);
            if (terminal == null) {
                finding(Severity.FAULT, "The " + limit.words() + " switch is not wired.", "Nothing but the hard stop would end the axis there.", assign(limit));
                continue;
            }
            if (!terminal.normallyClosed()) {
                finding(Severity.WARNING, "The " + limit.words() + " switch is normally open.", "A broken wire would not stop the axis.",
                        Mend.set("Take it as normally closed", at(terminal) + "/normallyClosed", true));
            }
            double room = limit == Function.NEGATIVE_LIMIT ? axis.travel().negativeLimit() : axis.travel().length() - axis.travel().positiveLimit();
            double late = axis.limits().max().speed() * terminal.responseMicros() * 1e-6;
            if (late > room / 2) {
                finding(Severity.WARNING, "The filter of " + terminal.name() + " is too long for the speed.",
                        "At highest speed the axis runs on " + significant(late, 3) + " " + unit + " before the switch answers; behind it there are " + significant(room, 3) + " " + unit + ".",
                        Mend.set("Set the filter to 1 ms", at(terminal) + "/filterMicros", 1000));
            }
        }
    }

    /** The first input that is not used takes the function, normally closed. */
    private Mend assign(Function function) {
        return axis.wiring().terminals().stream().filter(t -> t.function() == Function.NONE && function.fits(t.kind())).findFirst()
                .map(t -> new Mend("Wire it to " + t.name(), List.of(new Finding.Change("replace", at(t) + "/function", function),
                        new Finding.Change("replace", at(t) + "/normallyClosed", function != Function.REFERENCE_CAM)))).orElse(null);
    }

    private void homing() {
        HomingMethod method = HomingMethod.of(axis.homing().method());
        Set<Function> needed = EnumSet.noneOf(Function.class);
        switch (method.sensor()) {
            case CAM -> needed.add(Function.REFERENCE_CAM);
            case NEGATIVE_LIMIT -> needed.add(Function.NEGATIVE_LIMIT);
            case POSITIVE_LIMIT -> needed.add(Function.POSITIVE_LIMIT);
            case NONE -> { }
        }
        for (Function function : needed) {
            Terminal terminal = axis.wiring().terminal(function).orElse(null);
            if (terminal == null && (function == Function.REFERENCE_CAM || axis.endless())) {
                finding(Severity.FAULT, "Homing needs the " + function.words() + ", and it is not wired.", "Method " + axis.homing().method() + " looks for it and would not find it.", assign(function));
            }
        }
        axis.wiring().terminal(Function.REFERENCE_CAM).filter(t -> needed.contains(Function.REFERENCE_CAM)).ifPresent(this::camLength);
    }

    private void camLength(Terminal terminal) {
        double passing = (axis.travel().camTo() - axis.travel().camFrom()) / axis.homing().searchSpeed();
        if (passing > 0 && passing * 1e6 < terminal.responseMicros()) {
            finding(Severity.FAULT, "The filter of " + terminal.name() + " misses the cam.", "At search speed the cam passes in " + significant(passing * 1000, 3) + " ms; the input needs "
                    + significant(terminal.responseMicros() / 1000.0, 3) + " ms.", Mend.set("Set the filter to 0", at(terminal) + "/filterMicros", 0));
        }
    }

    private void secondEncoder() {
        axis.wiring().terminal(Function.MASTER_ENCODER).filter(t -> axis.following().source() != Following.Source.ENCODER).ifPresent(t -> finding(Severity.WARNING, "The master encoder is wired and not used.", "The stage Follow does not follow it.", Mend.set("Free the terminal", at(t) + "/function", Function.NONE)));
        boolean wired = axis.wiring().terminal(Function.LOAD_ENCODER).isPresent();
        if (axis.loadEncoder().fitted() && !wired) {
            Mend mend = axis.wiring().terminals().stream().filter(t -> t.kind() == Kind.SECOND_ENCODER).findFirst()
                    .map(t -> Mend.set("Enable " + t.name(), at(t) + "/function", Function.LOAD_ENCODER)).orElse(null);
            finding(Severity.FAULT, "The encoder on the load is not enabled.", "The stage Scale uses it, and the drive does not read it.", mend);
        } else if (wired && !axis.loadEncoder().fitted()) {
            finding(Severity.WARNING, "The second encoder is enabled and not used.", "Without an encoder there a line break is reported at once.", Mend.set("Free the terminal", at(axis.wiring().terminal(Function.LOAD_ENCODER).orElseThrow()) + "/function", Function.NONE));
        }
        if (axis.wiring().terminal(Function.TORQUE).isPresent()) {
            figure("1 V at the analogue input", significant(axis.wiring().analogueTorque() / 10, 4), "% of rated torque", "torque at 10 V ÷ 10; 12 bits, 4.88 mV a step");
        }
    }

    private void brake() {
        if (axis.brake().fitted() && axis.wiring().terminal(Function.BRAKE).isEmpty()) {
            Mend mend = axis.wiring().terminals().stream().filter(t -> t.kind() == Kind.OUTPUT && t.function() == Function.NONE).findFirst()
                    .map(t -> Mend.set("Wire it to " + t.name(), at(t) + "/function", Function.BRAKE)).orElse(null);
            finding(Severity.FAULT, "Nothing opens the holding brake.", "The motor would work against it until the following error stops the axis.", mend);
        }
        axis.wiring().terminal(Function.BRAKE).filter(Terminal::normallyClosed).ifPresent(t -> finding(Severity.FAULT, "The brake opens when it should hold.",
                "A brake opens with the level of " + t.name() + ", and that is high when the drive wants it closed.", Mend.set("Make it high when open", at(t) + "/normallyClosed", false)));
    }
}
