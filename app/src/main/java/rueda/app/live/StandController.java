package rueda.app.live;

import io.swagger.v3.oas.annotations.Operation;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rueda.app.devices.ImageStore;
import rueda.app.devices.ImageStore.ImageView;
import rueda.app.machine.MachineJson;
import rueda.app.machine.MachineStore;
import rueda.app.web.Downloads;
import rueda.app.web.Refusals.NotFound;
import rueda.bench.NetworkScan;
import rueda.bench.StandChange;
import rueda.drive.ParameterGroup;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.quantity.InvalidEntry;

/** The devices on the bench: which they are, what they hold, images of it. */
@RestController
@RequestMapping("/api/machines/{id}")
class StandController {

    private final Benches benches;
    private final MachineStore machines;
    private final ImageStore images;

    StandController(Benches benches, MachineStore machines, ImageStore images) {
        this.benches = benches;
        this.machines = machines;
        this.images = images;
    }

    @Operation(summary = "How the devices on the bench differ from the plan, by axis")
    @GetMapping("/bench/stand")
    Map<String, Set<StandChange>> changes(@PathVariable long id) {
        return benches.of(id).stand().changes();
    }

    /** @param changes empty for the planned device */
    record StandQuestion(String axis, Set<StandChange> changes) {
    }

    @Operation(summary = "Makes the device of an axis on the bench differ from the plan; a bench that is there is switched off and on, held")
    @PostMapping("/bench/stand")
    Map<String, Set<StandChange>> change(@PathVariable long id, @RequestBody StandQuestion wanted) {
        if (wanted.axis() == null || wanted.changes() == null) {
            throw new InvalidEntry("changes", "missing", "an axis and a list of " + Arrays.toString(StandChange.values()), "send both");
        }
        Machine machine = machines.get(id).document();
        BenchSession bench = benches.of(id);
        bench.switchedOffAndOn(() -> bench.stand().change(machine, wanted.axis(), wanted.changes()));
        return bench.stand().changes();
    }

    @Operation(summary = "Looks for devices on the bench and holds them against the saved plan")
    @GetMapping("/bench/scan")
    NetworkScan.ScanResult scan(@PathVariable long id, @RequestParam(defaultValue = "0") int from, @RequestParam(defaultValue = "65535") int to) {
        if (from < 0 || to < from) {
            throw new InvalidEntry("to", from + " to " + to, "a range of addresses, the lower first", "exchange them");
        }
        return benches.of(id).stand().scan(machines.get(id).document(), from, to);
    }

    /** What is done at the device itself. */
    enum AtDevice { READDRESS, EXCHANGE }

    record ResolveQuestion(String axis, AtDevice way) {
    }

    @Operation(summary = "Resolves a difference at the device: gives it the planned address, or exchanges it for the planned one")
    @PostMapping("/bench/resolve")
    NetworkScan.ScanResult resolve(@PathVariable long id, @RequestBody ResolveQuestion wanted) {
        Machine machine = machines.get(id).document();
        if (wanted.axis() == null || wanted.way() == null) {
            throw new InvalidEntry("way", "missing", "READDRESS or EXCHANGE, and an axis", "send both");
        }
        BenchSession bench = benches.of(id);
        bench.switchedOffAndOn(() -> {
            switch (wanted.way()) {
                case READDRESS -> bench.stand().readdress(machine, wanted.axis());
                case EXCHANGE -> bench.stand().exchange(wanted.axis());
            }
        });
        return bench.stand().scan(machine, 0, 65_535);
    }

    @Operation(summary = "Device images of a machine, newest first")
    @GetMapping("/images")
    List<ImageView> images(@PathVariable long id) {
        return images.all(id);
    }

    record KeepQuestion(String axis, String name) {
    }

    @Operation(summary = "Reads all values of a device on the bench and keeps them")
    @PostMapping("/images")
    ImageView keep(@PathVariable long id, @RequestBody KeepQuestion wanted) {
        if (wanted.axis() == null) {
            throw new InvalidEntry("axis", "missing", "the name of an axis", "send it");
        }
        BenchSession bench = benches.of(id);
        ImageView kept = images.keep(id, wanted.name(), bench.held(wanted.axis()));
        bench.stand().kept(wanted.axis());
        return kept;
    }

    @Operation(summary = "Brings an image in that was taken out as JSON")
    @PostMapping(path = "/images/file", consumes = "application/octet-stream")
    ImageView bring(@PathVariable long id, @RequestBody(required = false) byte[] file) {
        DeviceImageFile.Content content = DeviceImageFile.read(file == null ? new byte[0] : file, machines.get(id).document());
        return images.keep(id, content.name(), content.held());
    }

    @Operation(summary = "An image as JSON, or as CSV with a line each value")
    @GetMapping("/images/{image}/file")
    ResponseEntity<byte[]> file(@PathVariable long id, @PathVariable long image, @RequestParam(defaultValue = "json") String format) {
        ImageView view = images.view(id, image);
        boolean csv = format.equals("csv");
        String text = csv ? DeviceImageFile.csv(images.held(id, image)) : MachineJson.pretty(DeviceImageFile.of(view, images.held(id, image)));
        String name = view.axis() + "-" + view.name() + (csv ? ".csv" : ".json");
        return ResponseEntity.ok().contentType(csv ? MediaType.parseMediaType("text/csv") : MediaType.APPLICATION_JSON)
                .header(HttpHeaders.CONTENT_DISPOSITION, Downloads.named(name)).body(text.getBytes(StandardCharsets.UTF_8));
    }

    @Operation(summary = "Forgets an image")
    @DeleteMapping("/images/{image}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void forget(@PathVariable long id, @PathVariable long image) {
        images.forget(id, image);
    }

    @Operation(summary = "What the device of an axis holds, value by value, beside the saved machine and an image")
    @GetMapping("/bench/devices/{axis}/comparison")
    List<DeviceValues.DeviceGroup> comparison(@PathVariable long id, @PathVariable String axis, @RequestParam(required = false) Long image) {
        return benches.of(id).device(axis, image == null ? null : images.held(id, image));
    }

    /**
     * @param image  key of the image to write; left out: the saved machine
     * @param groups which groups to write
     * @param interruptedAfter groups after which the connection breaks; left out: it holds
     */
    record WriteQuestion(Long image, Set<ParameterGroup> groups, Integer interruptedAfter) {
    }

    @Operation(summary = "Writes a part of the saved machine or of an image into the device of an axis")
    @PostMapping("/bench/devices/{axis}/parameters")
    LiveBench.State write(@PathVariable long id, @PathVariable String axis, @RequestBody WriteQuestion wanted,
                          @RequestHeader(name = BenchController.KEY, required = false) String key) {
        if (wanted.groups() == null || wanted.groups().isEmpty()) {
            throw new InvalidEntry("groups", "none", "at least one of " + Arrays.toString(ParameterGroup.values()), "choose what to write");
        }
        Axis source = wanted.image() != null ? images.held(id, wanted.image()) : machines.get(id).document().axis(axis).orElseThrow(() -> new NotFound("axis " + axis));
        return benches.of(id).writeDevice(key, axis, source, EnumSet.copyOf(wanted.groups()), wanted.interruptedAfter() == null ? Integer.MAX_VALUE : wanted.interruptedAfter());
    }

    @Operation(summary = "Finishes a writing that was interrupted")
    @PostMapping("/bench/devices/{axis}/finish")
    LiveBench.State finish(@PathVariable long id, @PathVariable String axis, @RequestHeader(name = BenchController.KEY, required = false) String key) {
        return benches.of(id).endWriting(key, axis, true);
    }

    @Operation(summary = "Takes back what an interrupted writing has written")
    @PostMapping("/bench/devices/{axis}/undo")
    LiveBench.State undo(@PathVariable long id, @PathVariable String axis, @RequestHeader(name = BenchController.KEY, required = false) String key) {
        return benches.of(id).endWriting(key, axis, false);
    }

    @Operation(summary = "All parameters become those of a new device; it restarts")
    @PostMapping("/bench/devices/{axis}/factory-reset")
    LiveBench.State factoryReset(@PathVariable long id, @PathVariable String axis, @RequestHeader(name = BenchController.KEY, required = false) String key) {
        return benches.of(id).factoryReset(key, axis);
    }
}
