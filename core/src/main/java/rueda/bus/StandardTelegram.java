package rueda.bus;

import static rueda.bus.ProfiDriveSignal.*;

import java.util.List;
import java.util.Optional;
import rueda.machine.Station.Entry;

/** Standard telegrams of PROFIdrive (IEC 61800-7-203): which signals travel, in which order. */
public enum StandardTelegram {
    TELEGRAM_1(1, "speed setpoint of 16 bits", List.of(STW1, NSOLL_A), List.of(ZSW1, NIST_A)),
    TELEGRAM_2(2, "speed setpoint of 32 bits", List.of(STW1, NSOLL_B, STW2), List.of(ZSW1, NIST_B, ZSW2)),
    TELEGRAM_3(3, "speed setpoint with one encoder", List.of(STW1, NSOLL_B, STW2, G1_STW), List.of(ZSW1, NIST_B, ZSW2, G1_ZSW, G1_XIST1, G1_XIST2)),
    TELEGRAM_5(5, "dynamic servo control with one encoder", List.of(STW1, NSOLL_B, STW2, G1_STW, XERR, KPC), List.of(ZSW1, NIST_B, ZSW2, G1_ZSW, G1_XIST1, G1_XIST2)),
    TELEGRAM_7(7, "traversing blocks", List.of(STW1, SATZANW), List.of(ZSW1, AKTSATZ)),
    TELEGRAM_9(9, "positioning with target and velocity", List.of(STW1, SATZANW, STW2, MDI_TARPOS, MDI_VELOCITY, MDI_ACC, MDI_DEC, MDI_MOD),
            List.of(ZSW1, AKTSATZ, ZSW2, XIST_A));

    private final int number;
    private final String words;
    private final List<ProfiDriveSignal> outputs;
    private final List<ProfiDriveSignal> inputs;

    StandardTelegram(int number, String words, List<ProfiDriveSignal> outputs, List<ProfiDriveSignal> inputs) {
        this.number = number;
        this.words = words;
        this.outputs = outputs;
        this.inputs = inputs;
    }

    public int number() {
        return number;
    }

    /** What it is for. */
    public String words() {
        return words;
    }

    /** PLC to drive. */
    public List<ProfiDriveSignal> outputs() {
        return outputs;
    }

    /** Drive to PLC. */
    public List<ProfiDriveSignal> inputs() {
        return inputs;
    }

    /** Words of 16 bits. */
    public static int words(List<ProfiDriveSignal> signals) {
        return signals.stream().mapToInt(ProfiDriveSignal::bits).sum() / 16;
    }

    /** Entries without tags. */
    public static List<Entry> entries(List<ProfiDriveSignal> signals) {
        return signals.stream().map(s -> new Entry(s.number(), 0, s.bits(), "", "")).toList();
    }

    /** The telegram with which these entries begin; what follows it is added by the user. */
    public static Optional<StandardTelegram> of(List<Entry> outputs, List<Entry> inputs) {
        StandardTelegram found = null;
        for (StandardTelegram telegram : values()) {
            if (begins(outputs, telegram.outputs) && begins(inputs, telegram.inputs) && (found == null || telegram.outputs.size() > found.outputs.size())) {
                found = telegram;
            }
        }
        return Optional.ofNullable(found);
    }

    private static boolean begins(List<Entry> entries, List<ProfiDriveSignal> signals) {
        if (entries.size() < signals.size()) {
            return false;
        }
        for (int i = 0; i < signals.size(); i++) {
            if (entries.get(i).object() != signals.get(i).number() || entries.get(i).bits() != signals.get(i).bits()) {
                return false;
            }
        }
        return true;
    }
}
