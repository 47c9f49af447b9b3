package rueda.machine;

/**
 * The controller.
 *
 * @param taskIntervalMicros interval of the program's task in µs, a multiple of the bus cycle
 * @param instructionBudget  statements one cycle may execute before the task is stopped, 1000 to 10 000 000
 * @param program            Structured Text, IEC 61131-3
 */
public record Plc(int taskIntervalMicros, int instructionBudget, String program) {
    public Plc withProgram(String source) {
        return new Plc(taskIntervalMicros, instructionBudget, source);
    }

    public Plc withInterval(int micros) {
        return new Plc(micros, instructionBudget, program);
    }
}
