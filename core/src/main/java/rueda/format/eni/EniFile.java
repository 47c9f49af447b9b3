package rueda.format.eni;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import rueda.bus.EtherCat;
import rueda.bus.EtherCatCommand;
import rueda.bus.description.DeviceDescription.SyncManagerUse;
import rueda.format.UnreadableFile;
import rueda.format.eni.NetworkInformation.Check;
import rueda.format.eni.NetworkInformation.Clock;
import rueda.format.eni.NetworkInformation.Datagram;
import rueda.format.eni.NetworkInformation.Frame;
import rueda.format.eni.NetworkInformation.InitCommand;
import rueda.format.eni.NetworkInformation.Pdo;
import rueda.format.eni.NetworkInformation.PdoEntry;
import rueda.format.eni.NetworkInformation.RegisterCommand;
import rueda.format.eni.NetworkInformation.Slave;
import rueda.format.eni.NetworkInformation.SyncManager;
import rueda.format.eni.NetworkInformation.Variable;
import rueda.format.xml.XmlElement;
import rueda.format.xml.XmlReader;
import rueda.format.xml.XmlWriter;
import rueda.machine.Station.Identity;

/** Writes and reads network information (ETG.2100). */
public final class EniFile {

    private static final long UNSIGNED_32 = 0xFFFF_FFFFL;
    private static final int UNSIGNED_16 = 0xFFFF;
    /** How often an order is repeated that was not answered. */
    private static final int RETRIES = 3;
    /** How long a station may take to answer over its mailbox, ms (ETG.1000.6; from memory). */
    private static final int MAILBOX_MILLIS = 2000;
    /** How often the mailbox of a station is looked into, ms (common practice, no source). */
    private static final int POLL_MILLIS = 20;
    /** Download over CoE (CiA 301, initiate download request). */
    private static final int DOWNLOAD = 1;

    private EniFile() {
    }

    public static String write(NetworkInformation network) {
        XmlWriter out = new XmlWriter();
        out.open("EtherCATConfig", "Version", "1.3").open("Config");
        out.open("Master").open("Info").leaf("Name", network.name()).leaf("Destination", "ffffffffffff").leaf("Source", "025255450000").leaf("EtherType", "a488").close();
        commands(out, network.masterCommands());
        out.close();
        int number = 0;
        for (Slave slave : network.slaves()) {
            slave(out, slave, number++);
        }
        out.open("Cyclic").leaf("CycleTime", network.cycleMicros());
        for (Frame frame : network.frames()) {
            out.open("Frame");
            frame.datagrams().forEach(d -> cyclic(out, d));
            out.close();
        }
        out.close();
        out.open("ProcessImage");
        image(out, "Inputs", network, false);
        image(out, "Outputs", network, true);
        return out.close().close().close().document();
    }

    private static void cyclic(XmlWriter out, Datagram datagram) {
        out.open("Cmd");
        datagram.states().forEach(s -> out.leaf("State", s));
        out.leaf("Comment", datagram.comment()).leaf("Cmd", datagram.command().code());
        if (datagram.command().logical()) {
            out.leaf("Addr", datagram.address());
        } else {
            out.leaf("Adp", datagram.address() >> 16).leaf("Ado", datagram.address() & UNSIGNED_16);
        }
        out.leaf("DataLength", datagram.bytes()).leaf("Cnt", datagram.workingCounter()).leaf("InputOffs", datagram.imageOffset()).leaf("OutputOffs", datagram.imageOffset()).close();
    }

    private static void commands(XmlWriter out, List<RegisterCommand> commands) {
        out.open("InitCmds");
        for (RegisterCommand c : commands) {
            out.open("InitCmd");
            c.transitions().forEach(t -> out.leaf("Transition", t));
            out.leaf("Comment", c.comment()).leaf("Cmd", c.command().code()).leaf("Adp", c.address()).leaf("Ado", c.register());
            if (c.data().isEmpty()) {
                out.leaf("DataLength", c.bytes());
            } else {
                out.leaf("Data", c.data());
            }
            if (c.workingCounter() != RegisterCommand.NOT_COUNTED) {
                out.leaf("Cnt", c.workingCounter());
            }
            out.leaf("Retries", RETRIES);
            if (c.check() != null) {
                out.open("Validate").leaf("Data", c.check().data()).leaf("DataMask", c.check().mask()).leaf("Timeout", c.check().timeoutMillis()).close();
            }
            out.close();
        }
        out.close();
    }

    private static void slave(XmlWriter out, Slave slave, int number) {
        out.open("Slave");
        out.open("Info").leaf("Name", slave.name()).leaf("PhysAddr", slave.physicalAddress()).leaf("AutoIncAddr", -number & UNSIGNED_16).leaf("Physics", slave.ports()).leaf("VendorId", slave.identity().vendor())
                .leaf("ProductCode", slave.identity().product()).leaf("RevisionNo", slave.identity().revision()).leaf("SerialNo", 0).leaf("ProductRevision", slave.identity().device()).leaf("StationAlias", slave.alias()).close();
        out.open("ProcessData");
        out.open("Send").leaf("BitStart", slave.outputStart()).leaf("BitLength", slave.outputBits()).close();
        out.open("Recv").leaf("BitStart", slave.inputStart()).leaf("BitLength", slave.inputBits()).close();
        for (SyncManager m : slave.syncManagers()) {
            out.open("Sm" + m.number()).leaf("Type", type(m.use())).leaf("MinSize", m.bytes()).leaf("MaxSize", m.bytes()).leaf("DefaultSize", m.bytes()).leaf("StartAddress", m.start()).leaf("ControlByte", m.control())
                    .leaf("Enable", m.enabled() ? 1 : 0);
            if (slave.manager(m.use()).filter(m::equals).isPresent()) {
                slave.pdos().stream().filter(p -> m.use() == use(p)).forEach(p -> out.leaf("Pdo", p.index()));
            }
            out.close();
        }
        for (Pdo pdo : slave.pdos()) {
            out.open(pdo.output() ? "RxPdo" : "TxPdo", "Sm", slave.manager(use(pdo)).map(SyncManager::number).orElse(null)).leaf("Index", hex(pdo.index()));
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
        mailbox(out, slave);
        commands(out, slave.commands());
        if (slave.previous() != 0) {
            out.open("PreviousPort", "Selected", 1).leaf("Port", "B").leaf("PhysAddr", slave.previous()).close();
        }
        out.open("DC").leaf("ReferenceClock", slave.clock().reference()).leaf("AssignActivate", slave.clock().assignActivate()).leaf("CycleTime0", slave.clock().cycleNanos()).leaf("CycleTime1", 0)
                .leaf("ShiftTime", slave.clock().shiftNanos()).close();
        out.close();
    }

    private static void mailbox(XmlWriter out, Slave slave) {
        out.open("Mailbox");
        slave.manager(SyncManagerUse.MAILBOX_OUT).ifPresent(m -> out.open("Send").leaf("Start", m.start()).leaf("Length", m.bytes()).close());
        slave.manager(SyncManagerUse.MAILBOX_IN).ifPresent(m -> out.open("Recv").leaf("Start", m.start()).leaf("Length", m.bytes()).leaf("PollTime", POLL_MILLIS).close());
        slave.protocols().forEach(p -> out.leaf("Protocol", p));
        out.open("CoE").open("InitCmds");
        for (InitCommand command : slave.initCommands()) {
            out.open("InitCmd").leaf("Transition", command.transition()).leaf("Comment", command.comment()).leaf("Timeout", MAILBOX_MILLIS).leaf("Ccs", DOWNLOAD)
                    .leaf("Index", command.index()).leaf("SubIndex", command.subIndex()).leaf("Data", command.data()).close();
        }
        out.close().close().close();
    }

    private static SyncManagerUse use(Pdo pdo) {
        return pdo.output() ? SyncManagerUse.OUTPUTS : SyncManagerUse.INPUTS;
    }

    private static String type(SyncManagerUse use) {
        return switch (use) {
            case MAILBOX_OUT -> "MBoxOut";
            case MAILBOX_IN -> "MBoxIn";
            case OUTPUTS -> "Outputs";
            case INPUTS -> "Inputs";
        };
    }

    private static void image(XmlWriter out, String name, NetworkInformation network, boolean output) {
        out.open(name).leaf("ByteSize", network.imageBytes());
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
        return new NetworkInformation(config.need("Master").need("Info").need("Name").text(), (int) config.need("Cyclic").need("CycleTime").whole(1, 1_000_000), commands(config.need("Master")), slaves, variables,
                (int) image.need("Inputs").need("ByteSize").whole(0, 1 << 24), config.need("Cyclic").all("Frame").map(f -> new Frame(f.all("Cmd").map(EniFile::datagram).toList())).toList());
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
        List<SyncManager> managers = data.children().stream().filter(c -> c.name().matches("Sm\\d{1,2}")).map(EniFile::manager).toList();
        List<InitCommand> writes = slave.at("Mailbox", "CoE", "InitCmds").map(c -> c.all("InitCmd").map(w -> command(w, bytes(w, w.need("Data").text()))).toList()).orElse(List.of());
        List<String> protocols = slave.first("Mailbox").map(m -> m.all("Protocol").map(XmlElement::text).toList()).orElse(List.of());
        XmlElement dc = slave.need("DC");
        Clock clock = new Clock(dc.textOf("ReferenceClock", "false").equals("true"), small(dc, "AssignActivate", UNSIGNED_16), small(dc, "CycleTime0", Integer.MAX_VALUE),
                dc.first("ShiftTime").map(s -> s.whole(-1_000_000_000, 1_000_000_000)).orElse(0L));
        return new Slave(info.need("Name").text(), (int) info.need("PhysAddr").whole(1, 65_535), small(info, "StationAlias", UNSIGNED_16), identity,
                number(data, "Send", "BitStart"), number(data, "Send", "BitLength"), number(data, "Recv", "BitStart"), number(data, "Recv", "BitLength"), pdos, managers, protocols, writes,
                commands(slave), slave.at("PreviousPort", "PhysAddr").map(a -> (int) a.whole(1, 65_535)).orElse(0), clock, info.textOf("Physics", "YY"));
    }

    private static SyncManager manager(XmlElement sm) {
        SyncManagerUse use = Stream.of(SyncManagerUse.values()).filter(u -> type(u).equals(sm.need("Type").text())).findFirst()
                .orElseThrow(() -> new UnreadableFile(sm.place() + ", Type", sm.need("Type").text(), "MBoxOut, MBoxIn, Outputs or Inputs", "correct it"));
        return new SyncManager(Integer.parseInt(sm.name().substring(2)), use, (int) sm.need("StartAddress").whole(0, UNSIGNED_16), (int) sm.need("DefaultSize").whole(0, UNSIGNED_16),
                (int) sm.need("ControlByte").whole(0, 255), sm.need("Enable").whole(0, 255) != 0);
    }

    private static List<RegisterCommand> commands(XmlElement of) {
        return of.first("InitCmds").map(all -> all.all("InitCmd").map(c -> {
            String data = c.first("Data").map(d -> bytes(c, d.text())).orElse("");
            Check check = c.first("Validate").map(v -> new Check(bytes(v, v.need("Data").text()), bytes(v, v.textOf("DataMask", "")), small(v, "Timeout", Integer.MAX_VALUE))).orElse(null);
            return new RegisterCommand(c.all("Transition").map(XmlElement::text).toList(), c.textOf("Comment", ""), command(c.need("Cmd")), (int) c.need("Adp").whole(0, UNSIGNED_16), (int) c.need("Ado").whole(0, UNSIGNED_16),
                    data, data.isEmpty() ? (int) c.need("DataLength").whole(0, UNSIGNED_16) : data.length() / 2, c.first("Cnt").map(n -> (int) n.whole(0, UNSIGNED_16)).orElse(RegisterCommand.NOT_COUNTED), check);
        }).toList()).orElse(List.of());
    }

    private static EtherCatCommand command(XmlElement cmd) {
        return EtherCatCommand.of((int) cmd.whole(0, 255)).orElseThrow(() -> new UnreadableFile(cmd.place(), cmd.text(), "the number of an EtherCAT command, 0 to 14", "correct it"));
    }

    private static int small(XmlElement of, String name, long high) {
        return of.first(name).map(e -> (int) e.whole(0, high)).orElse(0);
    }

    private static int number(XmlElement data, String way, String name) {
        return (int) data.need(way).need(name).whole(0, 1 << 24);
    }

    private static Datagram datagram(XmlElement d) {
        EtherCatCommand command = command(d.need("Cmd"));
        long address = command.logical() ? d.need("Addr").whole(EtherCat.LOGICAL_START, UNSIGNED_32) : d.need("Adp").whole(0, UNSIGNED_16) << 16 | d.need("Ado").whole(0, UNSIGNED_16);
        return new Datagram(d.all("State").map(XmlElement::text).toList(), d.textOf("Comment", ""), command, address, (int) d.need("DataLength").whole(0, 0x7FF), small(d, "Cnt", UNSIGNED_16), small(d, "InputOffs", 1 << 24));
    }

    private static PdoEntry entry(XmlElement entry) {
        return new PdoEntry((int) entry.need("Index").whole(0, 0xFFFF), small(entry, "SubIndex", 255), (int) entry.need("BitLen").whole(1, 2048), entry.textOf("Name", ""), entry.textOf("DataType", ""));
    }

    private static InitCommand command(XmlElement command, String data) {
        return new InitCommand(command.need("Transition").text(), (int) command.need("Index").whole(0, 0xFFFF), (int) command.need("SubIndex").whole(0, 255), data, command.textOf("Comment", ""));
    }

    private static String bytes(XmlElement at, String hex) {
        if (!hex.matches("([0-9a-fA-F]{2})*")) {
            throw new UnreadableFile(at.place() + ", Data", hex, "bytes in hexadecimal", "correct it");
        }
        return hex;
    }
}
