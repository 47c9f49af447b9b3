package rueda.drive;

import java.util.ArrayList;
import java.util.List;
import rueda.machine.Axis;
import rueda.machine.Terminal.Function;

/**
 * A homing method said in a sentence with slots: look for {@code search}, going {@code direction}, and take {@code zero}
 * at {@code side}. Slots without a choice are empty.
 *
 * @param method    6098h
 * @param search    what is looked for
 * @param direction which way the search begins
 * @param zero      what is taken as zero
 * @param side      where, seen from the switch
 */
public record HomingSentence(int method, String search, String direction, String zero, String side) {

    private static final String INDEX = "the next index pulse";
    private static final String EDGE = "the edge of the switch";
    private static final String[] CAM_SIDES = {"outside its negative edge", "inside its negative edge", "inside its positive edge", "outside its positive edge"};

    /** Every method that an axis can have: an endless one has neither limit switches nor hard stops, and a limit switch stands before a hard stop. */
    public static List<HomingSentence> of(Axis axis) {
        List<HomingSentence> all = new ArrayList<>();
        String negative = axis.endless() ? "in negative direction" : "toward the negative end";
        String positive = axis.endless() ? "in positive direction" : "toward the positive end";
        for (int offset = 0; offset <= 16; offset += 16) {
            String zero = offset == 0 ? INDEX : EDGE;
            if (!axis.endless()) {
                all.add(new HomingSentence(1 + offset, "the negative limit switch", negative, zero, "off the switch"));
                all.add(new HomingSentence(2 + offset, "the positive limit switch", positive, zero, "off the switch"));
                all.add(new HomingSentence(3 + offset, "a switch active to the positive end", "from either side", zero, CAM_SIDES[0]));
                all.add(new HomingSentence(4 + offset, "a switch active to the positive end", "from either side", zero, CAM_SIDES[1]));
                all.add(new HomingSentence(5 + offset, "a switch active to the negative end", "from either side", zero, CAM_SIDES[3]));
                all.add(new HomingSentence(6 + offset, "a switch active to the negative end", "from either side", zero, CAM_SIDES[2]));
            }
            for (int k = 0; k < 4; k++) {
                all.add(new HomingSentence(7 + k + offset, "the reference cam", positive, zero, CAM_SIDES[k]));
                all.add(new HomingSentence(11 + k + offset, "the reference cam", negative, zero, CAM_SIDES[3 - k]));
            }
        }
        all.add(new HomingSentence(33, "the index pulse alone", negative, INDEX, ""));
        all.add(new HomingSentence(34, "the index pulse alone", positive, INDEX, ""));
        if (!axis.endless()) {
            addHardStop(all, axis, -1, Function.NEGATIVE_LIMIT, negative, "the place where it presses");
            addHardStop(all, axis, -2, Function.POSITIVE_LIMIT, positive, "the place where it presses");
            addHardStop(all, axis, -3, Function.NEGATIVE_LIMIT, negative, INDEX);
            addHardStop(all, axis, -4, Function.POSITIVE_LIMIT, positive, INDEX);
        }
        all.add(new HomingSentence(37, "nothing", "", "the place where the axis stands", ""));
        all.add(new HomingSentence(35, "nothing", "", "the place where the axis stands (method 35, older)", ""));
        return List.copyOf(all);
    }

    /** A hard stop can only be reached where no limit switch stands before it; a method chosen already stays among the choices. */
    private static void addHardStop(List<HomingSentence> all, Axis axis, int method, Function limit, String direction, String zero) {
        if (axis.wiring().terminal(limit).isEmpty() || axis.homing().method() == method) {
            all.add(new HomingSentence(method, "the hard stop", direction, zero, ""));
        }
    }
}
