package rueda.machine;

import java.util.List;

/** A machine as it begins: an EtherCAT bus and a PLC, no axis, a program that does nothing and a proof that expects nothing yet. */
public final class NewMachine {

    private static final String PROGRAM = """
            PROGRAM Main
            VAR
            END_VAR

            END_PROGRAM
            """;

    private NewMachine() {
    }

    /** @param name 1 to 80 characters */
    public static Machine named(String name) {
        Machine demo = DemoMachine.create();
        return new Machine(name, demo.bus(), new Plc(demo.plc().taskIntervalMicros(), demo.plc().instructionBudget(), PROGRAM), List.of(), List.of(new Proof("First proof", 10, List.of())));
    }
}
