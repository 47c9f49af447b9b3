package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;

/**
 * The controller.
 *
 * @param taskIntervalMicros interval of the program's task in µs, a multiple of the bus cycle
 * @param instructionBudget  statements one cycle may execute before the task is stopped, 1000 to 10 000 000
 * @param program            Structured Text, IEC 61131-3
 * @param tags               tags declared by hand; those that are bound to an entry stand there
 */
@RecordBuilder
public record Plc(int taskIntervalMicros, int instructionBudget, String program, List<DeclaredTag> tags) implements PlcBuilder.With {

    public Plc {
        tags = tags == null ? List.of() : List.copyOf(tags);
    }

    public Plc(int taskIntervalMicros, int instructionBudget, String program) {
        this(taskIntervalMicros, instructionBudget, program, List.of());
    }

    /** @param name names joined by dots  @param type elementary type, IEC 61131-3 */
    public record DeclaredTag(String name, String type) {
    }

}
