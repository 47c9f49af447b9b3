/**
 * What the drive moves: motor, reducers, feed, load, friction, weight, brake, hard stops, switches and encoder.
 *
 * <p>Everything is reduced to the motor shaft, see {@link rueda.machine.MotorSide}. A rigid axis is one equation of motion
 * <pre>  J·dω/dt = M − M_c·sgn(ω) − b·ω − M_g,   dθ/dt = ω </pre>
 * and an axis with a springy shaft is two of them, see {@link rueda.plant.TwoMassMechanics} (servo sizing in machine-design
 * handbooks; two-mass systems in textbooks of controlled electric drives).
 */
package rueda.plant;
