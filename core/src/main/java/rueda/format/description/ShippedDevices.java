package rueda.format.description;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.List;
import rueda.bus.description.DeviceDescription;

/** The invented drives that ship with Rueda, read from their description files: they are what the bench runs. */
public final class ShippedDevices {

    private static final List<String> FILES = List.of("wheelwright-w1.esi.xml", "wheelwright-w1.eds", "GSDML-wheelwright-w1.xml", "wheelwright-w1.odva.eds");

    private ShippedDevices() {
    }

    /** File names, as they can be taken out. */
    public static List<String> files() {
        return FILES;
    }

    /** The bytes of a file. @throws IllegalArgumentException when there is none of this name */
    public static byte[] file(String name) {
        if (!FILES.contains(name)) {
            throw new IllegalArgumentException(name);
        }
        try (InputStream in = ShippedDevices.class.getResourceAsStream("/rueda/devices/" + name)) {
            return in.readAllBytes();
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    /** All devices in all revisions. */
    public static List<DeviceDescription> all() {
        return FILES.stream().flatMap(name -> Descriptions.read(file(name)).value().stream()).toList();
    }
}
