package rueda.app.program;

import io.swagger.v3.oas.annotations.Operation;
import java.time.LocalDateTime;
import java.util.List;
import java.util.stream.Stream;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import rueda.format.program.ProgramFiles;
import rueda.machine.Plc;
import rueda.plc.Environment;
import rueda.plc.Language;
import rueda.plc.StandardBlocks;
import rueda.plc.run.FunctionBlock;
import rueda.plc.syntax.Formatter;
import rueda.plc.syntax.Outline;
import rueda.plcopen.MotionAxis;
import rueda.plcopen.MotionBlocks;

/** The language of the program, and its files. */
@RestController
@RequestMapping("/api/program")
class ProgramController {

    private final ProgramFolder folder;

    ProgramController(ProgramFolder folder) {
        this.folder = folder;
    }

    @Operation(summary = "Whether a machine takes its texts from a folder, and how that goes")
    @GetMapping("/folder")
    ProgramFolder.FolderState folder(@RequestParam long machine) {
        return folder.of(machine);
    }

    /** @param output the block writes it */
    record BlockPin(String name, String type, boolean output) {
    }

    record Block(String name, List<BlockPin> pins) {
    }

    /**
     * @param functions names of the standard's functions, but for conversions such as INT_TO_LREAL
     * @param given     types that every program has, with their members
     * @param constants names of numbers that the blocks take
     */
    record Words(List<String> keywords, List<String> types, List<String> functions, List<Block> blocks, List<Outline.Item> given, List<String> constants) {
    }

    @Operation(summary = "The words of Structured Text: keywords, types, functions, the function blocks with their pins, and the types and constants of motion control")
    @GetMapping("/language")
    Words language() {
        List<Block> blocks = Stream.concat(StandardBlocks.ALL.stream(), MotionBlocks.kinds(new MotionAxis[0]).stream()).map(ProgramController::block).toList();
        return new Words(Language.keywords(), Language.types(), Language.functions(), blocks, Outline.of(MotionBlocks.types()), MotionBlocks.constants().stream().map(Environment.Constant::name).toList());
    }

    private static Block block(FunctionBlock.Kind kind) {
        return new Block(kind.name(), kind.pins().stream().map(p -> new BlockPin(p.name(), p.typeName(), p.output())).toList());
    }

    @Operation(summary = "The texts in a file: Structured Text, a zip of it, or XML of IEC 61131-10; nothing is stored")
    @PostMapping(path = "/read", consumes = "application/octet-stream")
    ProgramFiles.Read read(@RequestParam String name, @RequestBody(required = false) byte[] content) {
        return ProgramFiles.read(name, content == null ? new byte[0] : content);
    }

    record Texts(List<Plc.SourceFile> files) {
    }

    @Operation(summary = "The texts indented by their structure, with the words of the language in capitals")
    @PostMapping("/format")
    Texts format(@RequestBody Texts texts) {
        return new Texts(texts.files().stream().map(f -> new Plc.SourceFile(f.name(), Formatter.format(f.source()))).toList());
    }

    @Operation(summary = "The texts as XML of IEC 61131-10, with bodies in Structured Text")
    @PostMapping(path = "/xml", produces = "application/octet-stream")
    ResponseEntity<byte[]> xml(@RequestParam String project, @RequestBody Texts texts) {
        byte[] xml = ProgramFiles.xml(project, LocalDateTime.now().withNano(0).toString(), texts.files());
        return ResponseEntity.ok().header(HttpHeaders.CONTENT_DISPOSITION, ContentDisposition.attachment().filename("program.xml").build().toString()).body(xml);
    }

    @Operation(summary = "The texts as a zip")
    @PostMapping(path = "/zip", produces = "application/octet-stream")
    ResponseEntity<byte[]> zip(@RequestBody Texts texts) {
        return ResponseEntity.ok().header(HttpHeaders.CONTENT_DISPOSITION, ContentDisposition.attachment().filename("program.zip").build().toString()).body(ProgramFiles.zip(texts.files()));
    }
}
