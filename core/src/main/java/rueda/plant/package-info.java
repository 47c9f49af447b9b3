/**
 * What the drive moves: motor, reducer, rack and pinion, mass, friction, hard stops, switches and encoder.
 *
 * <p>Motor and load are coupled rigidly, so one equation of motion at the motor shaft holds them all:
 * <pre>  J·dω/dt = M − M_c·sgn(ω) − b·ω,   dθ/dt = ω </pre>
 * with {@code J = J_motor + m·r²}, {@code M_c = F_c·r}, {@code b = b_load·r²} and the lever
 * {@code r} in metres of travel per motor radian (servo sizing in machine-design handbooks).
 */
package rueda.plant;
