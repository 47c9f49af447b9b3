package rueda.app.devices;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import rueda.app.machine.MachineJson;
import rueda.app.machine.MachineStore;
import rueda.app.web.Refusals.NotFound;
import rueda.machine.Axis;
import rueda.quantity.InvalidEntry;

/** Device images of a machine. */
@Service
public class ImageStore {

    private final Images images;
    private final MachineStore machines;
    private final Clock clock;

    ImageStore(Images images, MachineStore machines, Clock clock) {
        this.clock = clock;
        this.images = images;
        this.machines = machines;
    }

    /** An image without its values. */
    public record ImageView(long id, String axis, String name, Instant takenAt) {
    }

    @Transactional(readOnly = true)
    public List<ImageView> all(long machineId) {
        return images.findByMachineIdOrderByIdDesc(machineId).stream().map(ImageStore::view).toList();
    }

    private static ImageView view(ImageEntity entity) {
        return new ImageView(entity.id, entity.axis, entity.name, entity.takenAt);
    }

    /** Keeps what a device holds. @param name 1 to 80 characters */
    @Transactional
    public ImageView keep(long machineId, String name, Axis held) {
        machines.get(machineId);
        if (name == null || name.isBlank() || name.length() > 80) {
            throw new InvalidEntry("name", String.valueOf(name), "1 to 80 characters", "enter a name");
        }
        return view(images.save(new ImageEntity(machineId, held.name(), name.strip(), MachineJson.write(held), clock.instant())));
    }

    /** The values of an image, as the parameters of an axis. */
    @Transactional(readOnly = true)
    public Axis held(long machineId, long imageId) {
        return MachineJson.readHeld(entity(machineId, imageId).content, Axis.class, "");
    }

    @Transactional(readOnly = true)
    public ImageView view(long machineId, long imageId) {
        return view(entity(machineId, imageId));
    }

    private ImageEntity entity(long machineId, long imageId) {
        return images.findById(imageId).filter(image -> image.machineId == machineId).orElseThrow(() -> new NotFound("device image " + imageId));
    }

    @Transactional
    public void forget(long machineId, long imageId) {
        images.delete(entity(machineId, imageId));
    }
}
