package rueda.proof;

import static rueda.proof.Words.plain;

import java.util.List;
import java.util.stream.IntStream;
import rueda.bench.Bench;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.machine.Mistake;
import rueda.machine.ScriptStep.Does;
import rueda.machine.Terminal;
import rueda.plc.Variable;

/** What a sentence of a script does to the bench, how that ends, and how both are told. */
sealed interface Effect {

    /** Behind “At 2.5 s”. */
    String words();

    /** What is told when it is over; nothing of what is over at once. */
    default String endWords() {
        throw new IllegalStateException(words() + " does not last");
    }

    /** @param once what is set may change at once */
    void begin(Bench bench, boolean once);

    default void end(Bench bench) {
    }

    /** The axis that something happens to. */
    record Part(int number, Axis axis) {
        String name() {
            return axis.name();
        }

        String amount(double amount, Does does) {
            return plain(amount) + " " + does.unit(axis.train().feed().linear()).replaceFirst("^u$", axis.unit().symbol());
        }
    }

    /** A tag or a variable of the program; afterwards it has the value that it had before. */
    final class ValueSet implements Effect {
        private final Variable variable;
        private final String value;
        private long before;
        private String textBefore;

        ValueSet(Variable variable, String value) {
            this.variable = variable;
            this.value = value;
        }

        /** Sets it and takes that back. @return why it cannot be set, or null */
        String tried(Bench bench) {
            keep(bench);
            String fault = bench.resource().inspector().write(variable.name(), value);
            putBack(bench);
            return fault;
        }

        @Override
        public String words() {
            return variable.name() + " was set to " + value.strip();
        }

        @Override
        public String endWords() {
            return variable.name() + " got its value back";
        }

        @Override
        public void begin(Bench bench, boolean once) {
            keep(bench);
            if (once) {
                bench.resource().inspector().write(variable.name(), value);
            } else {
                bench.resource().inspector().force(variable.name(), value);
            }
        }

        @Override
        public void end(Bench bench) {
            bench.resource().inspector().release(variable.name());
            putBack(bench);
        }

        private void keep(Bench bench) {
            before = bench.resource().memory()[variable.slot()];
            /* it is shown between quotes */
            String shown = variable.type().isText() ? bench.resource().text(variable) : null;
            textBefore = shown == null ? null : shown.substring(1, shown.length() - 1);
        }

        /** A text as a literal of IEC 61131-3: $ and ' with a $ before them. */
        private void putBack(Bench bench) {
            if (textBefore == null) {
                bench.resource().memory()[variable.slot()] = before;
            } else {
                bench.resource().inspector().write(variable.name(), "'" + textBefore.replace("$", "$$").replace("'", "$'") + "'");
            }
        }
    }

    /** An input of an axis. @param level at the terminal */
    record InputSet(Part at, String terminal, boolean level) implements Effect {
        @Override
        public String words() {
            return "input " + at.name() + "." + terminal + " was " + (level ? "on" : "off");
        }

        @Override
        public String endWords() {
            return "input " + at.name() + "." + terminal + " was left alone again";
        }

        @Override
        public void begin(Bench bench, boolean once) {
            bench.forceInput(at.number(), terminal, level);
        }

        @Override
        public void end(Bench bench) {
            bench.forceInput(at.number(), terminal, null);
        }
    }

    /** Every quick-stop input opens, as the contacts of a stop button do that all stations hang on. */
    final class StopPressed implements Effect {

        private final List<InputSet> inputs;

        StopPressed(Machine machine) {
            inputs = IntStream.range(0, machine.axes().size()).boxed().flatMap(i -> machine.axes().get(i).wiring().terminals().stream()
                    .filter(t -> t.function() == Terminal.Function.QUICK_STOP && t.kind().digitalInput()).map(t -> new InputSet(new Part(i, machine.axes().get(i)), t.name(), !t.normallyClosed()))).toList();
        }

        boolean reachesNobody() {
            return inputs.isEmpty();
        }

        @Override
        public String words() {
            return "a person pressed stop";
        }

        @Override
        public String endWords() {
            return "stop was released";
        }

        @Override
        public void begin(Bench bench, boolean once) {
            inputs.forEach(input -> input.begin(bench, once));
        }

        @Override
        public void end(Bench bench) {
            inputs.forEach(input -> input.end(bench));
        }
    }

    /** @param force N along the line, or N·m at the last shaft */
    record Pushed(Part at, double force) implements Effect {
        @Override
        public String words() {
            return at.name() + " was pushed by " + at.amount(force, Does.PUSH);
        }

        @Override
        public String endWords() {
            return at.name() + " was let go again";
        }

        @Override
        public void begin(Bench bench, boolean once) {
            bench.push(at.number(), force);
        }

        @Override
        public void end(Bench bench) {
            bench.push(at.number(), 0);
        }
    }

    /** @param way user units */
    record Turned(Part at, double way) implements Effect {
        @Override
        public String words() {
            return at.name() + " was turned by hand by " + at.amount(way, Does.TURN);
        }

        @Override
        public void begin(Bench bench, boolean once) {
            bench.turnByHand(at.number(), way);
        }
    }

    /** The load becomes another one; afterwards it is what it was. */
    final class Loaded implements Effect {
        private final Part at;
        private final double mass;
        private double before;

        /** @param mass kg along the line, or kg·m² at the last shaft */
        Loaded(Part at, double mass) {
            this.at = at;
            this.mass = mass;
        }

        @Override
        public String words() {
            return "the load of " + at.name() + " became " + at.amount(mass, Does.LOAD);
        }

        @Override
        public String endWords() {
            return "the load of " + at.name() + " was again " + at.amount(before, Does.LOAD);
        }

        @Override
        public void begin(Bench bench, boolean once) {
            before = bench.load(at.number());
            bench.load(at.number(), mass);
        }

        @Override
        public void end(Bench bench) {
            bench.load(at.number(), before);
        }
    }

    /** Devices without power; afterwards they start again, which takes them a while. @param all of the machine */
    record Off(List<Part> parts, boolean all) implements Effect {
        @Override
        public String words() {
            return all ? "power was lost" : "the device of " + parts.get(0).name() + " was switched off";
        }

        @Override
        public String endWords() {
            return all ? "power came back" : "the device of " + parts.get(0).name() + " was switched on";
        }

        @Override
        public void begin(Bench bench, boolean once) {
            parts.forEach(part -> bench.switchOff(part.number()));
        }

        @Override
        public void end(Bench bench) {
            parts.forEach(part -> bench.restartDevice(part.number()));
        }
    }

    record Restarted(Part at) implements Effect {
        @Override
        public String words() {
            return "the device of " + at.name() + " was restarted";
        }

        @Override
        public void begin(Bench bench, boolean once) {
            bench.restartDevice(at.number());
        }
    }

    /** @param both channels open */
    record Asked(String request, int number, boolean both) implements Effect {
        @Override
        public String words() {
            return request + (both ? " asked the guards" : " opened its first channel only");
        }

        @Override
        public String endWords() {
            return request + (both ? " asked no more" : " closed its first channel");
        }

        @Override
        public void begin(Bench bench, boolean once) {
            bench.ask(number, false, !both);
        }

        @Override
        public void end(Bench bench) {
            bench.ask(number, true, true);
        }
    }

    record Acknowledged() implements Effect {
        @Override
        public String words() {
            return "the guards were acknowledged";
        }

        @Override
        public String endWords() {
            return "the acknowledge button was released";
        }

        @Override
        public void begin(Bench bench, boolean once) {
            bench.acknowledge(true);
        }

        @Override
        public void end(Bench bench) {
            bench.acknowledge(false);
        }
    }

    record Broken(Part at, Mistake mistake) implements Effect {
        @Override
        public String words() {
            return "at " + at.name() + ": " + mistake.words();
        }

        @Override
        public String endWords() {
            return "at " + at.name() + " this was mended: " + mistake.words();
        }

        @Override
        public void begin(Bench bench, boolean once) {
            bench.breakSomething(at.number(), mistake, true);
        }

        @Override
        public void end(Bench bench) {
            bench.breakSomething(at.number(), mistake, false);
        }
    }
}
