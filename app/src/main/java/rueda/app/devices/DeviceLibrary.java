package rueda.app.devices;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import rueda.app.web.Refusals.NotFound;
import rueda.bus.description.DeviceDescription;
import rueda.format.Reading;
import rueda.format.UnreadableFile;
import rueda.format.description.Descriptions;
import rueda.format.description.EdsReader;
import rueda.format.description.NodeConfiguration;
import rueda.format.description.ShippedDevices;
import rueda.machine.Bus.Family;
import rueda.machine.Station;

/** Descriptions that are known: those that ship with Rueda and those that were brought in. Thread-safe. */
@Service
public class DeviceLibrary {

    private static final Logger LOG = LoggerFactory.getLogger(DeviceLibrary.class);

    private final DescriptionFiles files;
    private final List<DeviceDescription> shipped = ShippedDevices.all();
    private final Clock clock;
    /** what was brought in, read once */
    private volatile List<KnownDevice> brought;

    DeviceLibrary(DescriptionFiles files, Clock clock) {
        this.clock = clock;
        this.files = files;
    }

    /** @param file key of the file it came from, 0 when it ships with Rueda */
    record KnownDevice(long file, String fileName, DeviceDescription device) {
    }

    /** All descriptions. */
    public List<DeviceDescription> descriptions() {
        return known().stream().map(KnownDevice::device).toList();
    }

    List<KnownDevice> known() {
        List<KnownDevice> all = new ArrayList<>(shipped.stream().map(d -> new KnownDevice(0, "", d)).toList());
        List<KnownDevice> read = brought;
        if (read == null) {
            read = files.findAll().stream().flatMap(DeviceLibrary::devices).toList();
            brought = read;
        }
        all.addAll(read);
        return all;
    }

    /** The devices of a kept file; one that an older version could read and this one cannot is left out. */
    private static Stream<KnownDevice> devices(DescriptionEntity file) {
        try {
            return Descriptions.read(file.content).value().stream().map(d -> new KnownDevice(file.id, file.fileName, d));
        } catch (UnreadableFile refused) {
            LOG.warn("Description {} is kept and cannot be read: {}", file.fileName, refused.getMessage());
            return Stream.empty();
        }
    }

    /** @param devices what the file describes  @param configuration of one node, null when the file is no DCF  @param remarks what was not understood */
    record Brought(List<DeviceDescription> devices, NodeConfiguration configuration, List<String> remarks) {
    }

    /**
     * Reads a file and keeps it. A DCF whose data sheet is known is read and not kept: it tells of one node.
     *
     * @throws UnreadableFile when it cannot be read, or holds nothing new; then nothing is kept
     */
    @Transactional
    public Brought bring(String name, byte[] content) {
        Reading<List<DeviceDescription>> reading = Descriptions.read(content);
        List<String> remarks = new ArrayList<>(reading.remarks());
        NodeConfiguration configuration = null;
        if (reading.value().get(0).family() == Family.CANOPEN) {
            EdsReader.Configured configured = EdsReader.configured(content).value();
            configuration = configured.isConfiguration() ? configured.configuration(remarks) : null;
        }
        boolean ofNode = configuration != null;
        boolean nothingNew = reading.value().stream().allMatch(d -> descriptions().stream().anyMatch(k -> ofNode ? k.family() == d.family() && k.identity().equals(d.identity()) : k.equals(d)));
        if (nothingNew && !ofNode) {
            throw new UnreadableFile(name, reading.value().get(0).name(), "a device or revision that is not known yet", "nothing needs to be done");
        }
        if (!nothingNew) {
            files.save(new DescriptionEntity(name.length() > 200 ? name.substring(0, 200) : name, content, clock.instant()));
            brought = null;
        }
        return new Brought(reading.value(), configuration, remarks);
    }

    /** The data sheet of a CANopen device as it was brought in: an EDS before a DCF. */
    @Transactional(readOnly = true)
    public Optional<byte[]> dataSheet(Station.Identity identity) {
        return known().stream().filter(k -> k.device().family() == Family.CANOPEN && k.device().sameProduct(identity) && k.device().identity().revision() == identity.revision())
                .min(Comparator.comparing(k -> k.device().format().equals("DCF")))
                .map(k -> k.file() == 0 ? ShippedDevices.file(ShippedDevices.files().stream().filter(f -> Descriptions.read(ShippedDevices.file(f)).value().contains(k.device())).findFirst().orElseThrow())
                        : files.findById(k.file()).orElseThrow(() -> new NotFound("description file " + k.file())).content);
    }

    @Transactional
    public void forget(long file) {
        if (!files.existsById(file)) {
            throw new NotFound("description file " + file);
        }
        files.deleteById(file);
        brought = null;
    }
}
