package rueda.bench;

import java.util.List;
import rueda.machine.Axis;
import rueda.machine.Machine;

/**
 * What really stands there: the mechanics of every axis, which may be other than the document says, and what disturbs it. Immutable.
 *
 * @param axes as they really are, one for each of the machine
 * @param disturbed one for each axis
 * @param taskJitter most time of the controller that goes elsewhere each time a task runs, ns
 * @param seed  of everything that comes by chance
 */
public record Stand(List<Axis> axes, List<Disturbance> disturbed, long taskJitter, long seed) {

    /** Nothing interrupts the tasks of the controller. */
    public Stand(List<Axis> axes, List<Disturbance> disturbed, long seed) {
        this(axes, disturbed, 0, seed);
    }

    /**
     * What disturbs an axis.
     *
     * @param encoderTurned by how much the encoder is turned on its shaft, turns, 0 to 1
     * @param encoderNoise  standard deviation, counts
     * @param clock         error of the station's clock, ppm; 0 for one that is synchronised
     * @param framesLost    share of frames that are lost or too late, 0 to 1
     */
    public record Disturbance(double encoderTurned, double encoderNoise, double clock, double framesLost) {
        public static final Disturbance NONE = new Disturbance(0, 0, 0, 0);
    }

    public Stand {
        axes = List.copyOf(axes);
        disturbed = List.copyOf(disturbed);
    }

    /** As the document says, undisturbed. */
    public static Stand of(Machine machine) {
        return new Stand(machine.axes(), machine.axes().stream().map(axis -> Disturbance.NONE).toList(), 0);
    }

    /** Each axis has its own chance. */
    long seed(int axis, int what) {
        return (seed * 31 + axis) * 31 + what;
    }
}
