package rueda.format.eni;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rueda.format.UnreadableFile;
import rueda.format.eni.NetworkInformation.Frame;
import rueda.format.eni.NetworkInformation.InitCommand;
import rueda.format.eni.NetworkInformation.Pdo;
import rueda.format.eni.NetworkInformation.PdoEntry;
import rueda.format.eni.NetworkInformation.Slave;
import rueda.format.eni.NetworkInformation.Variable;
import rueda.format.xml.XmlElement;
import rueda.format.xml.XmlReader;
import rueda.format.xml.XmlWriter;
import rueda.machine.Station.Identity;

/** Writes and reads network information (ETG.2100). */
public final class EniFile {

    private static final int LRW = 12;
    private static final int LOGICAL_START = 0x10000;
    private static final long UNSIGNED_32 = 0xFFFF_FFFFL;

    private EniFile() {
    }

    public static String write(NetworkInformation network) {
        XmlWriter out = new XmlWriter();
        out.open("EtherCATConfig", "Version", "1.3").open("Config");
        out.open("Master").open("Info").leaf("Name", network.name()).leaf("Destination", "ffffffffffff").leaf("Source", "025255450000").leaf("EtherType", "a488").close().close();
        int number = 0;
        for (Slave slave : network.slaves()) {
            slave(out, slave, number++, network.cycleMicros());
        }
        int bytes = network.slaves().stream().mapToInt(s -> Math.max((s.outputStart() + s.outputBits()) / 8, (s.inputStart() + s.inputBits()) / 8)).max().orElse(0);
        out.open("Cyclic").leaf("CycleTime", network.cycleMicros());
        for (Frame frame : network.frames()) {
            out.open("Frame").open("Cmd").leaf("State", "OP").leaf("Cmd", LRW).leaf("Addr", LOGICAL_START + frame.start()).leaf("DataLength", frame.bytes()).leaf("Cnt", frame.workingCounter()).close().close();
        }
        out.close();
        out.open("ProcessImage");
        image(out, "Inputs", network, false, bytes);
        image(out, "Outputs", network, true, bytes);
        return out.close().close().close().document();
    }

    private static void slave(XmlWriter out, Slave slave, int number, int cycleMicros) {
        out.open("Slave");
        out.open("Info").leaf("Name", slave.name()).leaf("PhysAddr", slave.physicalAddress()).leaf("AutoIncAddr", -number & 0xFFFF).leaf("Physics", "YY").leaf("VendorId", slave.identity().vendor())
                .leaf("ProductCode", slave.identity().product()).leaf("RevisionNo", slave.identity().revision()).leaf("SerialNo", 0).leaf("ProductRevision", slave.identity().device()).leaf("StationAlias", slave.alias()).close();
        out.open("ProcessData");
        out.open("Send").leaf("BitStart", slave.outputStart()).leaf("BitLength", slave.outputBits()).close();
        out.open("Recv").leaf("BitStart", slave.inputStart()).leaf("BitLength", slave.inputBits()).close();
        for (Pdo pdo : slave.pdos()) {
            out.open(pdo.output() ? "RxPdo" : "TxPdo", "Sm", pdo.output() ? 2 : 3).leaf("Index", hex(pdo.index()));
            for (PdoEntry entry : pdo.entries()) {
                out.open("Entry").leaf("Index", hex(entry.index())).leaf("SubIndex", entry.subIndex()).leaf("BitLen", entry.bits());
                if (entry.index() != 0) {
                    out.leaf("Name", entry.name()).leaf("DataType", entry.dataType());
                }
                out.close();
            }
            out.close();
        }
        out.close();
        out.open("Mailbox").leaf("Protocol", "CoE").open("CoE").open("InitCmds");
        for (InitCommand command : slave.initCommands()) {
            out.open("InitCmd").leaf("Transition", command.transition()).leaf("Comment", command.comment()).leaf("Timeout", 0).leaf("Ccs", 1)
                    .leaf("Index", command.index()).leaf("SubIndex", command.subIndex()).leaf("Data", command.data()).close();
        }
        out.close().close().close();
        out.open("DC").leaf("ReferenceClock", slave.referenceClock()).leaf("CycleTime0", cycleMicros * 1000L).leaf("ShiftTime", slave.shiftNanos()).close();
        out.close();
    }

    private static void image(XmlWriter out, String name, NetworkInformation network, boolean output, int bytes) {
        out.open(name).leaf("ByteSize", bytes);
        for (Variable v : network.variables()) {
            if (v.output() == output) {
                out.open("Variable").leaf("Name", v.name()).leaf("DataType", v.dataType()).leaf("BitSize", v.bits()).leaf("BitOffs", v.bitOffset()).close();
            }
        }
        out.close();
    }

    private static String hex(int index) {
        return String.format(Locale.ROOT, "#x%04X", index);
    }

    /** @throws UnreadableFile naming the line */
    public static NetworkInformation read(byte[] file) {
        XmlElement root = XmlReader.read(file);
        if (!root.name().equals("EtherCATConfig")) {
            throw new UnreadableFile(root.place(), "<" + root.name() + ">", "<EtherCATConfig> (ETG.2100)", "choose an ENI file");
        }
        XmlElement config = root.need("Config");
        List<Slave> slaves = config.all("Slave").map(EniFile::slave).toList();
        List<Variable> variables = new ArrayList<>();
        XmlElement image = config.need("ProcessImage");
        for (Slave slave : slaves) {
            /* variables stand station after station, outputs before inputs */
            add(image.need("Outputs"), true, slave.outputStart(), slave.outputBits(), variables);
            add(image.need("Inputs"), false, slave.inputStart(), slave.inputBits(), variables);
        }
        return new NetworkInformation(config.need("Master").need("Info").need("Name").text(), (int) config.need("Cyclic").need("CycleTime").whole(1, 1_000_000), slaves, variables,
                config.need("Cyclic").all("Frame").flatMap(f -> f.all("Cmd")).filter(c -> c.need("Cmd").whole(0, 255) == LRW).map(EniFile::frame).toList());
    }

    private static void add(XmlElement image, boolean output, int start, int bits, List<Variable> into) {
        image.all("Variable").forEach(v -> {
            int at = (int) v.need("BitOffs").whole(0, 1 << 24);
            if (at >= start && at < start + bits) {
                into.add(new Variable(v.need("Name").text(), v.need("DataType").text(), (int) v.need("BitSize").whole(1, 1 << 16), at, output));
            }
        });
    }

    private static Slave slave(XmlElement slave) {
        XmlElement info = slave.need("Info");
        XmlElement data = slave.need("ProcessData");
        Identity identity = new Identity(info.textOf("ProductRevision", ""), info.need("VendorId").whole(0, UNSIGNED_32), info.need("ProductCode").whole(0, UNSIGNED_32), info.need("RevisionNo").whole(0, UNSIGNED_32));
        List<Pdo> pdos = data.children().stream().filter(c -> c.name().equals("RxPdo") || c.name().equals("TxPdo"))
                .map(p -> new Pdo((int) p.need("Index").whole(0x1600, 0x1BFF), p.name().equals("RxPdo"), p.all("Entry").map(EniFile::entry).toList())).toList();
        List<InitCommand> commands = slave.at("Mailbox", "CoE", "InitCmds").map(c -> c.all("InitCmd").map(EniFile::command).toList()).orElse(List.of());
        XmlElement clock = slave.need("DC");
        return new Slave(info.need("Name").text(), (int) info.need("PhysAddr").whole(1, 65_535), (int) info.first("StationAlias").map(a -> a.whole(0, 65_535)).orElse(0L).longValue(), identity,
                number(data, "Send", "BitStart"), number(data, "Send", "BitLength"), number(data, "Recv", "BitStart"), number(data, "Recv", "BitLength"), pdos, commands,
                clock.textOf("ReferenceClock", "false").equals("true"), clock.first("ShiftTime").map(s -> s.whole(-1_000_000_000, 1_000_000_000)).orElse(0L));
    }

    private static int number(XmlElement data, String way, String name) {
        return (int) data.need(way).need(name).whole(0, 1 << 24);
    }

    private static Frame frame(XmlElement command) {
        return new Frame((int) command.need("Addr").whole(LOGICAL_START, UNSIGNED_32) - LOGICAL_START, (int) command.need("DataLength").whole(0, 0x7FF), (int) command.first("Cnt").map(c -> c.whole(0, 0xFFFF)).orElse(0L).longValue());
    }

    private static PdoEntry entry(XmlElement entry) {
        return new PdoEntry((int) entry.need("Index").whole(0, 0xFFFF), (int) entry.first("SubIndex").map(s -> s.whole(0, 255)).orElse(0L).longValue(), (int) entry.need("BitLen").whole(1, 2048),
                entry.textOf("Name", ""), entry.textOf("DataType", ""));
    }

    private static InitCommand command(XmlElement command) {
        String data = command.need("Data").text();
        if (!data.matches("([0-9a-fA-F]{2})*")) {
            throw new UnreadableFile(command.place() + ", Data", data, "bytes in hexadecimal", "correct it");
        }
        return new InitCommand(command.need("Transition").text(), (int) command.need("Index").whole(0, 0xFFFF), (int) command.need("SubIndex").whole(0, 255), data, command.textOf("Comment", ""));
    }
}
