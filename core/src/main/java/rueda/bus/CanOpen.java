package rueda.bus;

import java.util.ArrayList;
import java.util.List;
import rueda.machine.Axis;
import rueda.machine.Bus;
import rueda.machine.Bus.Family;
import rueda.machine.Machine;
import rueda.machine.Station;
import rueda.machine.Station.Entry;

/**
 * CANopen (CiA 301): process data objects of at most 8 bytes, each a CAN frame of its own, started together by SYNC.
 */
public final class CanOpen implements BusFamily {

    static final CanOpen INSTANCE = new CanOpen();
    private static final Facts FACTS = new Facts(Family.CANOPEN, WireOrder.LITTLE_ENDIAN, DriveProfile.CIA402, "Node id", "Node name", 1, 127, false, "RPDO", "TPDO", 2000);

    /** SYNC of the predefined connection set. */
    public static final int SYNC = 0x80;
    /** PDOs of a direction that the predefined connection set gives identifiers to. */
    public static final int PREDEFINED_PDOS = 4;
    private static final int MOST_BITS = 64;
    /** Bits of a frame without data: start 1, identifier 11, RTR 1, control 6, check 15 and delimiter 1, acknowledge 2, end 7, gap 3. */
    private static final int FRAME_BITS = 47;
    /** Of these, bits in which a stuff bit can follow: start to check sequence. */
    private static final int STUFFED_BITS = 34;

    private CanOpen() {
    }

    @Override
    public Facts facts() {
        return FACTS;
    }

    @Override
    public String refusesCycle(int cycleMicros) {
        return cycleMicros < 500 || cycleMicros > 100_000 || cycleMicros % 125 != 0 ? "500 to 100 000 µs in steps of 125" : null;
    }

    @Override
    public Station usual(String axis, int number) {
        return new Station(Station.Address.of(number, Station.nameOf(axis)), Station.Identity.USUAL, List.of(
                new Entry(0x6040, 0, 16, axis + ".Cmd.Control", "WORD"),
                new Entry(0x6060, 0, 8, axis + ".Cmd.Mode", "SINT"),
                new Entry(0x607A, 0, 32, axis + ".Cmd.Position", "DINT").withPdo(2)),
                List.of(
                new Entry(0x6041, 0, 16, axis + ".Fb.Status", "WORD"),
                new Entry(0x6061, 0, 8, axis + ".Fb.Mode", "SINT"),
                new Entry(0x6077, 0, 16, axis + ".Fb.Torque", "INT"),
                new Entry(0x6064, 0, 32, axis + ".Fb.Position", "DINT").withPdo(2),
                new Entry(0x606C, 0, 32, axis + ".Fb.Speed", "DINT").withPdo(2),
                new Entry(0x60F4, 0, 32, axis + ".Fb.FollowingError", "DINT").withPdo(3),
                new Entry(0x60FD, 0, 32, axis + ".Fb.Inputs", "DWORD").withPdo(3)), List.of());
    }

    /**
     * Identifier of a PDO in the predefined connection set (CiA 301): TPDO 1 to 4 180h, 280h, 380h, 480h, RPDO 1 to 4 200h, 300h,
     * 400h, 500h, each plus the node id.
     *
     * @param pdo  1 to 4  @param node 1 to 127
     */
    public static int cobId(boolean output, int pdo, int node) {
        return (output ? 0x100 : 0x80) + pdo * 0x100 + node;
    }

    /** Bits of a data frame with 11-bit identifier and most stuffing. @param bytes 0 to 8 */
    public static int mostBits(int bytes) {
        return FRAME_BITS + 8 * bytes + (STUFFED_BITS + 8 * bytes - 1) / 4;
    }

    @Override
    public List<LayoutRemark> remarks(Bus bus, List<Entry> entries, boolean output) {
        List<LayoutRemark> remarks = new ArrayList<>();
        int used = 0;
        int pdo = 0;
        boolean told = false;
        for (int i = 0; i < entries.size(); i++) {
            Entry entry = entries.get(i);
            if (entry.pdo() < pdo) {
                remarks.add(new LayoutRemark(i, "{entry} stands in " + directionWord(output) + " " + entry.pdo() + " behind " + directionWord(output) + " " + pdo + ".",
                        "Messages must follow each other in the order of their numbers.", true, new LayoutRemark.Mend.NextMessage()));
                return remarks;
            }
            if (entry.pdo() != pdo) {
                pdo = entry.pdo();
                used = 0;
                told = false;
            }
            used += entry.bits();
            if (used > MOST_BITS && !told) {
                told = true;
                remarks.add(new LayoutRemark(i, directionWord(output) + " " + pdo + " has no room for {entry}.",
                        "A PDO carries at most 8 bytes; with this entry it would have " + (used + 7) / 8 + " (CiA 301).", true, new LayoutRemark.Mend.NextMessage()));
            }
            if (entry.pdo() > PREDEFINED_PDOS) {
                remarks.add(new LayoutRemark(i, directionWord(output) + " " + pdo + " has no identifier.",
                        "The predefined connection set has identifiers for " + PREDEFINED_PDOS + " PDOs a direction (CiA 301).", true, new LayoutRemark.Mend.None()));
                return remarks;
            }
        }
        return remarks;
    }

    /** Bytes of each PDO of a direction, number 1 first; 0 for one that is not used. */
    public static int[] pdoBytes(List<Entry> entries) {
        int[] bits = new int[entries.stream().mapToInt(Entry::pdo).max().orElse(0)];
        entries.forEach(e -> bits[e.pdo() - 1] += e.bits());
        for (int i = 0; i < bits.length; i++) {
            bits[i] = (bits[i] + 7) / 8;
        }
        return bits;
    }

    private record Frame(int identifier, String name, int bits) {
    }

    @Override
    public int firstOutput() {
        return cobId(true, 1, 0);
    }

    @Override
    public int firstInput() {
        return cobId(false, 1, 0);
    }

    @Override
    public int mostMessages() {
        return PREDEFINED_PDOS;
    }

    /**
     * Frames by priority. The worst case of a frame is the time of the longest one that may have just begun, of all with
     * a lower identifier, and its own: all are due at once after SYNC, and each once a cycle (R. I. Davis et al.,
     * Controller Area Network schedulability analysis, Real-Time Systems 35, 2007, for one cycle).
     */
    @Override
    public CycleTimes times(Machine machine) {
        List<Frame> frames = new ArrayList<>();
        frames.add(new Frame(SYNC, "SYNC", mostBits(0)));
        for (Axis axis : machine.axes()) {
            add(axis, true, frames);
            add(axis, false, frames);
        }
        frames.sort(java.util.Comparator.comparingInt(Frame::identifier));
        double nanosPerBit = 1e6 / machine.bus().kiloBits();
        int longest = frames.stream().mapToInt(Frame::bits).max().orElse(0);
        List<CycleTimes.Message> messages = new ArrayList<>();
        int before = 0;
        for (Frame frame : frames) {
            before += frame.bits();
            messages.add(new CycleTimes.Message(String.format("%03Xh %s", frame.identifier(), frame.name()), frame.bits(),
                    Math.round(frame.bits() * nanosPerBit), Math.round((before + longest) * nanosPerBit)));
        }
        long wire = Math.round(before * nanosPerBit);
        return new CycleTimes(messages, wire, LayoutRules.roundUp(wire, 125_000),
                before + " bits at most, stuffing included, ÷ " + machine.bus().kiloBits() + " kbit/s: 47 + 8·n + (34 + 8·n − 1) ÷ 4 bits a frame with n bytes");
    }

    private static void add(Axis axis, boolean output, List<Frame> into) {
        int[] bytes = pdoBytes(output ? axis.station().outputs() : axis.station().inputs());
        for (int i = 0; i < bytes.length; i++) {
            if (bytes[i] > 0) {
                into.add(new Frame(cobId(output, i + 1, axis.station().address().number()), (output ? "RPDO " : "TPDO ") + (i + 1) + " of " + axis.name(), mostBits(Math.min(8, bytes[i]))));
            }
        }
    }
}
