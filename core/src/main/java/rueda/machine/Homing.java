package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * How an axis finds its zero.
 *
 * @param method         homing method of IEC 61800-7-201: 1 to 14, 17 to 30, 33, 34, 35, 37; or of our own: −1 and −2 take
 *                       the negative and the positive hard stop, −3 and −4 the index pulse next to it
 * @param searchSpeed    6099h:01, units/s
 * @param creepSpeed     6099h:02, units/s
 * @param acceleration   609Ah, units/s²
 * @param zeroOffset     position the axis has at the place found, units; 607Ch is its negative (zero position = home position + home offset)
 * @param stopTorque     torque at which a hard stop counts as reached, % of rated torque
 * @param stopTime       how long that torque must have stood, ms
 * @param timeLimit      the search fails when it takes longer, s
 * @param thenToZero     the axis travels to position 0 afterwards, at the search speed
 * @param onFirstEnable  an axis without reference searches by itself when it is enabled
 * @param atPowerUp      which encoder tells the position at power-up
 * @param encoderOffset  the position the axis has where that encoder reads 0, units
 */
@RecordBuilder
public record Homing(int method, double searchSpeed, double creepSpeed, double acceleration, double zeroOffset,
                     double stopTorque, int stopTime, double timeLimit, boolean thenToZero, boolean onFirstEnable, AtPowerUp atPowerUp, double encoderOffset) implements HomingBuilder.With {

    /** NOTHING: the axis must be homed; MOTOR_ENCODER: absolute over the travel; LOAD_ENCODER: brought to the motor by the gear. */
    public enum AtPowerUp { NOTHING, MOTOR_ENCODER, LOAD_ENCODER }

    /** Every method the drive has. */
    public static final Set<Integer> METHODS = Stream.of(IntStream.rangeClosed(1, 14), IntStream.rangeClosed(17, 30), IntStream.of(33, 34, 35, 37), IntStream.rangeClosed(-4, -1))
            .flatMap(IntStream::boxed).collect(Collectors.toUnmodifiableSet());

    /** A search without a hard stop and without travel afterwards, within a minute. */
    public static Homing search(int method, double searchSpeed, double creepSpeed, double acceleration, double zeroOffset) {
        return new Homing(method, searchSpeed, creepSpeed, acceleration, zeroOffset, 40, 200, 60, false, false, AtPowerUp.NOTHING, 0);
    }

    public Homing withStop(double torque, int time) {
        return withStopTorque(torque).withStopTime(time);
    }

    public Homing withThenToZero() {
        return withThenToZero(true);
    }

    public Homing withOnFirstEnable() {
        return withOnFirstEnable(true);
    }

    public Homing withAtPowerUp(AtPowerUp changed, double offset) {
        return withAtPowerUp(changed).withEncoderOffset(offset);
    }
}
