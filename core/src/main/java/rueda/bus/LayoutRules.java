package rueda.bus;

import java.util.List;
import rueda.machine.Station.Entry;

/** Rules of layouts that several families share. */
final class LayoutRules {

    private LayoutRules() {
    }

    /**
     * Values of a width, or wider, must begin on a boundary.
     *
     * @param fromBits narrowest value the rule is for  @param boundary bits  @param consequence {off} stands for how far off it is
     */
    static void alignment(ProcessDataLayout layout, int fromBits, int boundary, boolean fault, String consequence, List<LayoutRemark> into) {
        for (int i = 0; i < layout.entries().size(); i++) {
            Entry entry = layout.entries().get(i);
            int past = layout.bitOffset(i) % boundary;
            if (!entry.fillsGap() && entry.bits() >= fromBits && past != 0) {
                int missing = boundary - past;
                into.add(new LayoutRemark(i, "{entry} does not start on a " + boundary / 8 + "-byte boundary.",
                        consequence.replace("{off}", missing % 8 == 0 ? missing / 8 + (missing == 8 ? " byte off" : " bytes off") : missing + " bits off"), fault, new LayoutRemark.Mend.Filler(missing)));
                return;
            }
        }
    }

    static void most(int size, int most, String what, List<LayoutRemark> into) {
        if (size > most) {
            into.add(new LayoutRemark(-1, size + " are too many: at most " + most + " " + what + ".", "The station would refuse this layout.", true, new LayoutRemark.Mend.None()));
        }
    }

    /** Values of whole bytes on whole bytes. */
    static void wholeBytes(ProcessDataLayout layout, String rule, List<LayoutRemark> into) {
        for (int i = 0; i < layout.entries().size(); i++) {
            if (layout.entries().get(i).bits() % 8 != 0 || layout.bitOffset(i) % 8 != 0) {
                into.add(new LayoutRemark(i, "{entry} is not made of whole bytes.", rule, true, new LayoutRemark.Mend.None()));
                return;
            }
        }
    }

    /** The whole must be a multiple of so many bits. */
    static void endsOn(ProcessDataLayout layout, int boundary, String consequence, List<LayoutRemark> into) {
        int bits = layout.entries().isEmpty() ? 0 : layout.bitOffset(layout.entries().size() - 1) + layout.entries().get(layout.entries().size() - 1).bits();
        if (bits % boundary != 0) {
            into.add(new LayoutRemark(-1, "The layout ends " + bits % boundary + " bits past a " + boundary / 8 + "-byte boundary.", consequence, true,
                    new LayoutRemark.Mend.FillerAtEnd(boundary - bits % boundary)));
        }
    }

    static long roundUp(long nanos, long step) {
        return (nanos + step - 1) / step * step;
    }
}
