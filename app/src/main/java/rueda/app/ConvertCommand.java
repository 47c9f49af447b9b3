package rueda.app;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;
import rueda.app.machine.MachineFolder;
import rueda.app.machine.MachineJson;
import rueda.machine.Machine;

/** A machine file into a folder that a version control system can follow, and back. */
@Command(name = "convert", mixinStandardHelpOptions = true,
        description = "Writes a machine file as a folder with machine.json and the .st files of its program, or such a folder as one file: what TO ends with decides, .json for a file. Exit code 0: written, 2: not.")
final class ConvertCommand implements Callable<Integer> {

    private static final int NOT_WRITTEN = 2;

    @Parameters(index = "0", paramLabel = "FROM", description = "machine file or folder")
    Path from;

    @Parameters(index = "1", paramLabel = "TO", description = "file that ends with .json, or a folder")
    Path to;

    @Override
    public Integer call() {
        Machine machine;
        try {
            machine = MachineArgument.read(from);
        } catch (MachineArgument.Unusable why) {
            return Commands.refuse(why.getMessage(), NOT_WRITTEN);
        }
        try {
            if (to.toString().toLowerCase(Locale.ROOT).endsWith(".json")) {
                Files.writeString(to, MachineJson.pretty(machine) + "\n", StandardCharsets.UTF_8);
            } else {
                MachineFolder.write(machine, to);
            }
        } catch (IOException unwritable) {
            return Commands.refuse("Cannot write " + to + ": " + unwritable.getClass().getSimpleName().replace("Exception", "").replaceAll("([a-z])([A-Z])", "$1 $2").toLowerCase(Locale.ROOT) + ".", NOT_WRITTEN);
        } catch (IllegalArgumentException unfit) {
            return Commands.refuse("Cannot write " + to + ": " + unfit.getMessage(), NOT_WRITTEN);
        }
        System.out.println("Written: " + to);
        return 0;
    }
}
