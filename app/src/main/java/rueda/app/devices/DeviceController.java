package rueda.app.devices;

import io.swagger.v3.oas.annotations.Operation;
import java.util.List;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rueda.app.web.Refusals.NotFound;
import rueda.app.web.Downloads;
import rueda.format.description.ShippedDevices;

/** The library of device descriptions. */
@RestController
@RequestMapping("/api/devices")
class DeviceController {

    private final DeviceLibrary library;

    DeviceController(DeviceLibrary library) {
        this.library = library;
    }

    @Operation(summary = "Every device that is known, with all its revisions")
    @GetMapping
    List<DeviceLibrary.KnownDevice> all() {
        return library.known();
    }

    @Operation(summary = "Brings a description in: ESI, GSDML, EDS or DCF, EDS of ODVA; a file that cannot be read changes nothing. What a DCF says of its node is answered, not applied")
    @PostMapping(consumes = "application/octet-stream")
    DeviceLibrary.Brought bring(@RequestParam String name, @RequestBody(required = false) byte[] content) {
        return library.bring(name, content == null ? new byte[0] : content);
    }

    @Operation(summary = "Forgets a file that was brought in")
    @DeleteMapping("/files/{file}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void forget(@PathVariable long file) {
        library.forget(file);
    }

    @Operation(summary = "Names of the description files that ship with Rueda")
    @GetMapping("/shipped")
    List<String> shipped() {
        return ShippedDevices.files();
    }

    @Operation(summary = "A description file that ships with Rueda")
    @GetMapping(path = "/shipped/{name}", produces = "application/octet-stream")
    ResponseEntity<byte[]> shipped(@PathVariable String name) {
        if (!ShippedDevices.files().contains(name)) {
            throw new NotFound("shipped file " + name);
        }
        return ResponseEntity.ok().header(HttpHeaders.CONTENT_DISPOSITION, Downloads.named(name)).body(ShippedDevices.file(name));
    }
}
