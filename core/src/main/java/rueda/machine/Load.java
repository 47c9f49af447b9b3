package rueda.machine;

import java.util.List;

/**
 * What is moved, and how stiffly it hangs on the motor.
 *
 * @param mass      mass moved along the line, kg; 0 for a load that only turns
 * @param inertia   inertia turning with the last shaft, kg·m²
 * @param coulomb   Coulomb friction: N along the line, or N·m at the last shaft
 * @param viscous   viscous friction: N·s/m along the line, or N·m·s/rad at the last shaft
 * @param slope     slope of the line, °: 0 level, 90 upward
 * @param stiffness torsional stiffness between motor and load, at the motor shaft, N·m/rad; 0 for rigid
 * @param damping   damping of that spring, at the motor shaft, N·m·s/rad
 * @param backlash  play between motor and load, user units
 */
public record Load(double mass, double inertia, double coulomb, double viscous, double slope, double stiffness, double damping, double backlash) {

    /** Standard acceleration of gravity, m/s² (CGPM 1901). */
    public static final double GRAVITY = 9.80665;

    /** A rigid load on a level line. */
    public static Load along(double mass, double coulomb, double viscous) {
        return new Load(mass, 0, coulomb, viscous, 0, 0, 0, 0);
    }

    /** Entries that must be made before the axis is identified or tuned. @param linear the feed makes a line of the turning */
    public List<String> missing(boolean linear) {
        return linear ? mass > 0 ? List.of() : List.of("mass") : inertia > 0 ? List.of() : List.of("inertia");
    }

    public Load withFriction(double changedCoulomb, double changedViscous) {
        return new Load(mass, inertia, changedCoulomb, changedViscous, slope, stiffness, damping, backlash);
    }
}
