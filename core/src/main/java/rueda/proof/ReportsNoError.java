package rueda.proof;

import rueda.bench.AxisSignal;
import rueda.machine.Axis;
import rueda.plc.run.ProgramFault;
import rueda.plcopen.CommandLog;

/** Neither the drive of an axis nor a function block of the program reports an error. */
record ReportsNoError(String axis) implements Claim {

    @Override
    public String sentence(Axis of) {
        return "No error of " + axis + " or of a function block";
    }

    @Override
    public Verdict judge(RecordedRun run) {
        int number = axisIn(run.machine());
        Axis of = run.machine().axes().get(number);
        Causes causes = new Causes(run);
        String signal = AxisSignal.ERROR_CODE.of(of.name());
        int code = run.signal(signal);
        int errors = 0;
        double first = run.end();
        String cause = null;
        Verdict.Order order = null;
        for (int i = run.orders().size() - 1; i >= 0; i--) {
            CommandLog.Entry entry = run.orders().entry(i);
            if (entry.kind() == CommandLog.Kind.ERROR && entry.axis() == number) {
                errors++;
                first = entry.time() * 1e-9;
                cause = causes.refused(entry);
                order = new Verdict.Order(entry.call().file(), entry.line(), entry.block(), causes.words(entry));
            }
        }
        for (long k = 0; k < run.samples(); k++) {
            if (run.value(code, k) != 0) {
                errors++;
                if (run.time(k) <= first) {
                    first = run.time(k);
                    cause = causes.driveFault((int) run.value(code, k));
                    order = causes.orderAt(number, first);
                }
                break;
            }
        }
        ProgramFault fault = run.fault();
        if (fault != null) {
            errors++;
            cause = cause == null ? causes.stopped(fault) : cause;
        }
        return new Verdict(sentence(of), errors == 0, 0.0, (double) errors, "errors", errors == 0 ? 1.0 : -1.0, errors == 0 ? null : (Double) (double) -errors, first, first, first, signal, cause, order, null, null);
    }
}
