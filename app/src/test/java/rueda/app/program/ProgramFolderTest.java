package rueda.app.program;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rueda.app.machine.MachineState;
import rueda.app.machine.MachineStore;
import rueda.app.web.Refusals.Conflict;
import rueda.app.web.Refusals.RefusedEntries;
import rueda.machine.DemoMachine;
import rueda.machine.EntryFault;
import rueda.machine.Machine;
import rueda.machine.Plc.SourceFile;

/** A folder that another editor writes; each look is made by the test. */
class ProgramFolderTest {

    @TempDir
    private Path folder;
    private final MachineStore store = mock(MachineStore.class);
    private final ProgramFolder programs = new ProgramFolder(store, Clock.systemUTC());
    private Machine document = DemoMachine.create();
    private long revision = 7;
    private int conflicts;
    private EntryFault refused;

    @BeforeEach
    void aMachine() {
        when(store.all()).thenReturn(List.of(listed(3, document.name())));
        when(store.get(3)).thenAnswer(asked -> state());
        when(store.save(anyLong(), anyLong(), any())).thenAnswer(asked -> {
            if (conflicts > 0) {
                conflicts--;
                revision++;
                throw new Conflict(revision - 1, revision, Instant.EPOCH);
            }
            if (refused != null) {
                throw new RefusedEntries(List.of(refused));
            }
            assertThat(asked.<Long>getArgument(1)).isEqualTo(revision);
            document = asked.getArgument(2);
            revision++;
            return state();
        });
    }

    private static MachineStore.Listed listed(long id, String name) {
        return new MachineStore.Listed(id, name, 7, Instant.EPOCH, 5, null, "", null);
    }

    private MachineState state() {
        return new MachineState(3, revision, Instant.EPOCH, true, false, document, List.of());
    }

    private void write(String path, String text) throws IOException {
        write(path, text.getBytes(StandardCharsets.UTF_8));
    }

    private void write(String path, byte[] text) throws IOException {
        Path file = folder.resolve(path);
        Files.createDirectories(file.getParent());
        Files.write(file, text);
    }

    private List<SourceFile> files() {
        return document.plc().files();
    }

    /** What has changed is seen at one look, and taken at the next one. */
    private void looks() {
        programs.look();
        programs.look();
    }

    @Test
    void allTextsAtFirstThenWhatHasChanged() throws IOException {
        write("Main.st", "PROGRAM Main END_PROGRAM");
        write("blocks/Walker.st", "FUNCTION_BLOCK Walker END_FUNCTION_BLOCK");
        write(".git/Old.st", "x");
        write("readme.md", "x");
        programs.begin(folder, null);
        assertThat(files()).containsExactly(new SourceFile("Main.st", "PROGRAM Main END_PROGRAM"), new SourceFile("Walker.st", "FUNCTION_BLOCK Walker END_FUNCTION_BLOCK"));
        assertThat(programs.of(3).revision()).isEqualTo(8);
        assertThat(programs.of(4).watched()).isFalse();

        looks();
        assertThat(revision).as("nothing has changed").isEqualTo(8);

        write("Main.st", "PROGRAM Main (* 2 *) END_PROGRAM");
        programs.look();
        assertThat(revision).as("it may be half written").isEqualTo(8);
        programs.look();
        assertThat(files().get(0).source()).contains("(* 2 *)");
        assertThat(revision).isEqualTo(9);

        Files.delete(folder.resolve("blocks/Walker.st"));
        write("Types.st", "TYPE A : INT; END_TYPE");
        looks();
        assertThat(files()).extracting(SourceFile::name).containsExactly("Main.st", "Types.st");
    }

    /** What a page has changed in another text stays. */
    @Test
    void theOthersStayAsThePageHasThem() throws IOException {
        write("A.st", "PROGRAM A END_PROGRAM");
        write("B.st", "PROGRAM B END_PROGRAM");
        programs.begin(folder, document.name());
        List<SourceFile> edited = new ArrayList<>(files());
        edited.set(1, new SourceFile("B.st", "PROGRAM B (* in the page *) END_PROGRAM"));
        edited.add(new SourceFile("C.st", "PROGRAM C END_PROGRAM"));
        document = document.withPlc(document.plc().withFiles(edited));
        conflicts = 2;
        write("A.st", "PROGRAM A (* in the editor *) END_PROGRAM");
        looks();
        assertThat(files()).extracting(SourceFile::source).containsExactly("PROGRAM A (* in the editor *) END_PROGRAM", "PROGRAM B (* in the page *) END_PROGRAM", "PROGRAM C END_PROGRAM");
    }

    /** A text that is refused is told, and taken when it is mended; so are those that were refused with it. */
    @Test
    void whatIsRefusedIsToldAndTriedAgain() throws IOException {
        write("A.st", "PROGRAM A END_PROGRAM");
        refused = new EntryFault("/plc/files", "Program", "2 100 000 characters", "up to 2 000 000", "shorten it");
        programs.begin(folder, null);
        assertThat(programs.of(3).told()).containsExactly("Not taken: Program is refused: 2 100 000 characters. Allowed: up to 2 000 000; shorten it.");
        assertThat(programs.of(3).takenAt()).isNull();
        refused = null;
        write("B.st", "PROGRAM B END_PROGRAM");
        looks();
        assertThat(files()).extracting(SourceFile::name).containsExactly("A.st", "B.st");
        assertThat(programs.of(3).told()).isEmpty();
    }

    /** Encodings and line ends as editors elsewhere write them; two of the same name; an empty folder. */
    @Test
    void textsFromElsewhere() throws IOException {
        programs.begin(folder, null);
        assertThat(revision).isEqualTo(7);
        assertThat(programs.of(3).told()).containsExactly("The folder holds no .st file: the program stays as it is.");
        write("Größe.ST", "PROGRAM A (* Größe *)\r\nEND_PROGRAM".getBytes(Charset.forName("windows-1252")));
        write("x/Main.scl", "PROGRAM B END_PROGRAM".getBytes(StandardCharsets.UTF_16));
        write("y/main.st", "FUNCTION F : INT F := 1; END_FUNCTION");
        looks();
        assertThat(files()).extracting(SourceFile::name).containsExactly("Größe.st", "Main.st", "main_2.st");
        assertThat(files().get(0).source()).isEqualTo("PROGRAM A (* Größe *)\nEND_PROGRAM");
        assertThat(files().get(1).source()).isEqualTo("PROGRAM B END_PROGRAM");
        for (String path : List.of("Größe.ST", "x/Main.scl", "y/main.st")) {
            Files.delete(folder.resolve(path));
        }
        looks();
        assertThat(files()).as("a program keeps its texts").hasSize(3);
    }

    /** Two of the same name: when the first one goes, the second one has the name for itself. */
    @Test
    void aNameThatBecomesFree() throws IOException {
        write("a/Main.st", "PROGRAM A END_PROGRAM");
        write("b/Main.st", "PROGRAM B END_PROGRAM");
        programs.begin(folder, null);
        assertThat(files()).containsExactly(new SourceFile("Main.st", "PROGRAM A END_PROGRAM"), new SourceFile("Main_2.st", "PROGRAM B END_PROGRAM"));
        Files.delete(folder.resolve("a/Main.st"));
        looks();
        assertThat(files()).containsExactly(new SourceFile("Main.st", "PROGRAM B END_PROGRAM"));
        write("a/Main.st", "PROGRAM A2 END_PROGRAM");
        looks();
        assertThat(files()).containsExactlyInAnyOrder(new SourceFile("Main.st", "PROGRAM A2 END_PROGRAM"), new SourceFile("Main_2.st", "PROGRAM B END_PROGRAM"));
    }

    /** Pages that save all the time keep it from being taken, until they do not. */
    @Test
    void whatAnotherPageKeptAwayIsTriedAgain() throws IOException {
        conflicts = 5;
        write("A.st", "PROGRAM A END_PROGRAM");
        programs.begin(folder, null);
        assertThat(programs.of(3).told()).hasSize(1);
        looks();
        assertThat(files()).containsExactly(new SourceFile("A.st", "PROGRAM A END_PROGRAM"));
        assertThat(programs.of(3).told()).isEmpty();
    }

    /** A folder of another kind: too many texts, and a link that leads back to itself. */
    @Test
    void aFolderThatIsNotOfAProgram() throws IOException {
        Files.createSymbolicLink(folder.resolve("again"), folder);
        for (int i = 0; i < 101; i++) {
            write("T" + i + ".st", "TYPE T" + i + " : INT; END_TYPE");
        }
        programs.begin(folder, null);
        assertThat(revision).isEqualTo(7);
        assertThat(programs.of(3).told()).containsExactly("Not taken: the folder holds 101 texts of 0 MB. Allowed: up to 100 texts of 8 MB; put them elsewhere, or several into one.");
        Files.delete(folder.resolve("T100.st"));
        looks();
        assertThat(files()).hasSize(100);
    }

    @Test
    void whichMachineIsSaid() {
        when(store.all()).thenReturn(List.of(listed(3, "Cellar"), listed(4, "Mill"), listed(5, "Mill")));
        assertThatThrownBy(() -> programs.begin(folder, null)).hasMessage("There are several machines: say with --machine which one takes its program from " + folder + ". There are: “Cellar”, “Mill”, “Mill”.");
        assertThatThrownBy(() -> programs.begin(folder, "Attic")).hasMessageStartingWith("No machine is called “Attic”: say with --machine");
        assertThatThrownBy(() -> programs.begin(folder, "Mill")).hasMessageStartingWith("Several machines are called “Mill”");
        assertThatThrownBy(() -> programs.begin(folder.resolve("none"), null)).hasMessage("The folder of the program " + folder.resolve("none") + " is not there. Name one with --programs.");
    }
}
