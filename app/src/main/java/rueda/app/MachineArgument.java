package rueda.app;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Collectors;
import rueda.app.machine.MachineFolder;
import rueda.format.UnreadableFile;
import rueda.machine.EntryFault;
import rueda.machine.Machine;
import rueda.machine.MachineRules;

/** The machine that a command is about: a file, or a folder. */
final class MachineArgument {

    /** It is no machine, or has refused entries; the message says so in words. */
    static final class Unusable extends Exception {
        Unusable(String why) {
            super(why);
        }
    }

    private MachineArgument() {
    }

    static Machine read(Path path) throws Unusable {
        Machine machine;
        try {
            machine = MachineFolder.read(path);
        } catch (IOException unreadable) {
            throw new Unusable("Cannot read " + path + ": " + (Files.exists(path) ? "it is no file that can be read." : "there is no such file."));
        } catch (IllegalArgumentException | UnreadableFile unfit) {
            throw new Unusable("Cannot read " + path + ": " + unfit.getMessage());
        }
        List<EntryFault> faults = MachineRules.check(machine);
        if (!faults.isEmpty()) {
            throw new Unusable(faults.stream().map(f -> f.field() + " " + f.label() + ": " + f.value() + "; allowed: " + f.allowed() + "; " + f.mend()).collect(Collectors.joining("\n")));
        }
        return machine;
    }
}
