package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;

/**
 * Speed, acceleration, deceleration, jerk and torque of an axis: what it takes by default, or what it may do at the most.
 *
 * @param speed        units/s
 * @param acceleration units/s²
 * @param deceleration units/s²
 * @param jerk         units/s³, 0 for no limit
 * @param torque       % of the motor's rated torque
 */
@RecordBuilder
public record Dynamics(double speed, double acceleration, double deceleration, double jerk, double torque) implements DynamicsBuilder.With {
}
