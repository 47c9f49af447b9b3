package rueda.drive;

import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
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

    /** what was being written when the connection broke, null when nothing was */
    private Axis unfinishedFrom;
    private Axis before;
    private final Set<ParameterGroup> missing = EnumSet.noneOf(ParameterGroup.class);

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
        write(written, EnumSet.allOf(ParameterGroup.class), Integer.MAX_VALUE);
    }

    /**
     * Writes a part of the parameters, group after group. When the connection breaks on the way, the device is {@link #incomplete}:
     * it gives no torque until writing is finished or undone.
     *
     * @param groups  what to write
     * @param reached how many groups get there
     */
    public void write(Axis written, Set<ParameterGroup> groups, int reached) {
        before = unfinishedFrom == null ? working : before;
        missing.clear();
        int done = 0;
        for (ParameterGroup group : groups) {
            if (done++ < reached) {
                working = group.taken(working, written);
            } else {
                missing.add(group);
            }
        }
        unfinishedFrom = missing.isEmpty() ? null : written;
    }

    /** Writing was interrupted; what is missing can be written, or what was written taken back. */
    public boolean incomplete() {
        return unfinishedFrom != null;
    }

    /** Groups that an interrupted writing has not reached. */
    public List<ParameterGroup> missing() {
        return List.copyOf(missing);
    }

    /** Writes what an interrupted writing has not reached. */
    public void finish() {
        if (unfinishedFrom != null) {
            write(unfinishedFrom, EnumSet.copyOf(missing), Integer.MAX_VALUE);
        }
    }

    /** Takes back what an interrupted writing has written. */
    public void undo() {
        if (unfinishedFrom != null) {
            working = before;
            unfinishedFrom = null;
            missing.clear();
        }
    }

    /** All parameters become those of a new device; a restart must follow. @param fresh an axis as it begins */
    public void factoryReset(Axis fresh) {
        for (ParameterGroup group : ParameterGroup.values()) {
            permanent = group.taken(permanent, fresh);
        }
        undo();
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
        unfinishedFrom = null;
        missing.clear();
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
