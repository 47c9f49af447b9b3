package rueda.format.description;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import rueda.bus.description.DeviceDescription;
import rueda.format.Reading;
import rueda.format.Text;
import rueda.format.UnreadableFile;
import rueda.format.xml.XmlElement;
import rueda.format.xml.XmlReader;

/** Reads a description of any format; the content decides which, not the name of the file. */
public final class Descriptions {

    private Descriptions() {
    }

    /** @throws UnreadableFile when it is none of them, or cannot be read */
    public static Reading<List<DeviceDescription>> read(byte[] file) {
        Text.bounded(file);
        String head = new String(file, 0, Math.min(file.length, 4096), StandardCharsets.ISO_8859_1).replace("\0", "").toLowerCase(Locale.ROOT);
        if (head.stripLeading().startsWith("<") || head.contains("<?xml")) {
            XmlElement root = XmlReader.read(file);
            return switch (root.name()) {
                case "EtherCATInfo" -> EsiReader.read(root);
                case "ISO15745Profile" -> GsdmlReader.read(root);
                default -> throw new UnreadableFile(root.place(), "<" + root.name() + ">", "ESI (EtherCATInfo) or GSDML (ISO15745Profile)", "choose a device description");
            };
        }
        String text = Text.decoded(file).toLowerCase(Locale.ROOT);
        if (text.contains("[deviceinfo]")) {
            return EdsReader.read(file);
        }
        if (text.contains("[device]")) {
            return OdvaEdsReader.read(file);
        }
        throw new UnreadableFile("File", text.lines().findFirst().orElse(""), "ESI, GSDML, EDS or DCF (CiA 306), EDS of ODVA", "choose a device description");
    }
}
