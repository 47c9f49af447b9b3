package rueda.trial;

import java.util.ArrayList;
import java.util.List;
import rueda.advice.TuneAdvice;
import rueda.machine.Axis;
import rueda.machine.Control;
import rueda.machine.Dynamics;
import rueda.machine.MotorSide;

/**
 * One value that identification proposes, to be looked at before it is taken over.
 *
 * @param label what it is
 * @param path  JSON pointer in the document
 * @param now   present value
 * @param next  proposed value
 * @param unit  unit of both
 */
public record Proposal(String label, String path, double now, double next, String unit) {

    /** Share of the torque there is at highest speed that an acceleration may take (our choice). */
    private static final double SHARE_OF_TORQUE = 0.8;
    /** Share of the highest acceleration that is the default (our choice). */
    private static final double DEFAULT_SHARE = 0.6;

    /**
     * Gains for the identified inertia, the whole speed and torque fed forward, and accelerations that the motor makes at
     * the highest speed against the identified friction and weight with a fifth of its torque to spare:
     * {@code a = (0.8·M − M_c − b·ω − |M_g|) ÷ J}.
     *
     * @param found   an identification that was done
     * @param pointer JSON pointer of the axis
     */
    static List<Proposal> of(Axis axis, Identification.Identified found, String pointer) {
        Control gains = TuneAdvice.proposed(axis, found.inertia());
        Control now = axis.control();
        String unit = axis.unit().symbol();
        List<Proposal> all = new ArrayList<>(List.of(
                new Proposal("Position gain", pointer + "/control/positionGain", now.positionGain(), gains.positionGain(), "1/s"),
                new Proposal("Velocity gain", pointer + "/control/velocityGain", now.velocityGain(), gains.velocityGain(), "N·m·s"),
                new Proposal("Integral time", pointer + "/control/integralTime", now.integralTime(), gains.integralTime(), "ms"),
                new Proposal("Speed feed-forward", pointer + "/control/feedForward", now.feedForward(), 1, ""),
                new Proposal("Torque feed-forward", pointer + "/control/torqueForward", now.torqueForward(), 1, "")));
        Dynamics max = axis.limits().max();
        Dynamics normal = axis.limits().normal();
        MotorSide side = axis.motorSide();
        double torque = Math.min(axis.torqueLimit(), axis.motor().peakTorqueAt(axis.scale().motorTurnsPerMinute(max.speed())));
        double left = SHARE_OF_TORQUE * torque - found.coulomb() - found.viscous() * max.speed() / side.unitsPerRadian() - Math.abs(found.gravity());
        double highest = rounded(left / found.inertia() * side.unitsPerRadian());
        if (highest > 0 && highest < max.acceleration()) {
            double usual = Math.min(normal.acceleration(), rounded(DEFAULT_SHARE * highest));
            all.add(new Proposal("Highest acceleration", pointer + "/limits/max/acceleration", max.acceleration(), highest, unit + "/s²"));
            all.add(new Proposal("Highest deceleration", pointer + "/limits/max/deceleration", max.deceleration(), Math.min(max.deceleration(), highest), unit + "/s²"));
            all.add(new Proposal("Default acceleration", pointer + "/limits/normal/acceleration", normal.acceleration(), usual, unit + "/s²"));
            all.add(new Proposal("Default deceleration", pointer + "/limits/normal/deceleration", normal.deceleration(), Math.min(normal.deceleration(), usual), unit + "/s²"));
        }
        return all.stream().filter(p -> p.now() != p.next()).toList();
    }

    private static double rounded(double value) {
        return value <= 0 ? 0 : Double.parseDouble(String.format(java.util.Locale.ROOT, "%.2g", value));
    }
}
