package rueda.drive;

import java.util.Arrays;
import java.util.List;
import rueda.drive.ParameterGroup.Acts;
import rueda.machine.Axis;

/**
 * The parameters of one device three times: those that act now, those in its working memory, and those it keeps when it
 * is switched off. Writing goes to the working memory; what does not act at once waits. A restart begins with the
 * permanent memory, so that what was not kept is lost. Not thread-safe.
 */
public final class DeviceMemory {

    private Axis acting;
    private Axis working;
    private Axis permanent;

    /** A device that has just been set up: all three the same. */
    public DeviceMemory(Axis axis) {
        acting = axis;
        working = axis;
        permanent = axis;
    }

    /** Parameters that act now. */
    public Axis acting() {
        return acting;
    }

    /** Parameters in the working memory. */
    public Axis working() {
        return working;
    }

    /** Parameters that are kept when the device is switched off. */
    public Axis permanent() {
        return permanent;
    }

    /** Writes all parameters into the working memory. */
    public void write(Axis written) {
        for (ParameterGroup group : ParameterGroup.values()) {
            working = group.taken(working, written);
        }
    }

    /** Lets act what may. @param enabled the drive has torque  @return whether anything changed */
    public boolean act(boolean enabled) {
        Axis before = acting;
        for (ParameterGroup group : ParameterGroup.values()) {
            boolean now = group.acts() == Acts.AT_ONCE || group.acts() == Acts.WHILE_DISABLED && !enabled;
            if (now && !group.same(acting, working)) {
                acting = group.taken(acting, working);
            }
        }
        return acting != before;
    }

    /** Keeps the working memory when the device is switched off. */
    public void keep() {
        permanent = working;
    }

    /** The device begins again with what it has kept. */
    public void restart() {
        working = permanent;
        acting = permanent;
    }

    /** Groups that are written and do not act yet. */
    public List<ParameterGroup> pending() {
        return different(acting, working);
    }

    /** Groups that a restart would lose. */
    public List<ParameterGroup> unkept() {
        return different(working, permanent);
    }

    private static List<ParameterGroup> different(Axis one, Axis other) {
        return Arrays.stream(ParameterGroup.values()).filter(group -> !group.same(one, other)).toList();
    }
}
