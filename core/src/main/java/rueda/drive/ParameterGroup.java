package rueda.drive;

import java.util.List;
import java.util.function.BinaryOperator;
import java.util.function.Function;
import rueda.machine.Axis;

/** The parameters of a device in groups that act at the same time. */
public enum ParameterGroup {
    GAINS("Gains", Acts.AT_ONCE, List.of("/control"), Axis::control, (device, written) -> device.withControl(written.control())),
    LIMITS("Limits and defaults", Acts.AT_ONCE, List.of("/limits"), Axis::limits, (device, written) -> device.withLimits(written.limits())),
    SUPERVISION("Supervision", Acts.AT_ONCE, List.of("/supervision"), Axis::supervision, (device, written) -> device.withSupervision(written.supervision())),
    LOAD("Load data", Acts.WHILE_DISABLED, List.of("/load"), Axis::load, (device, written) -> device.withLoad(written.load())),
    HOMING("Homing", Acts.WHILE_DISABLED, List.of("/homing"), Axis::homing, (device, written) -> device.withHoming(written.homing())),
    MOVES("Move list", Acts.AT_ONCE, List.of("/moves"), Axis::moves, (device, written) -> device.withMoves(written.moves())),
    FOLLOWING("Following", Acts.AT_ONCE, List.of("/following"), Axis::following, (device, written) -> device.withFollowing(written.following())),
    BRAKE("Holding brake", Acts.WHILE_DISABLED, List.of("/brake"), Axis::brake, (device, written) -> device.withBrake(written.brake())),
    SCALE("Unit, encoder and train", Acts.AFTER_RESTART, List.of("/kind", "/modulo", "/unit", "/encoder", "/train", "/gearBits"),
            axis -> List.of(axis.kind(), axis.modulo(), axis.unit(), axis.encoder(), axis.train(), axis.gearBits()), Axis::withScaleOf),
    LOAD_ENCODER("Encoder on the load", Acts.AFTER_RESTART, List.of("/loadEncoder"), Axis::loadEncoder, (device, written) -> device.withLoadEncoder(written.loadEncoder())),
    WIRING("Terminals", Acts.AFTER_RESTART, List.of("/wiring"), Axis::wiring, (device, written) -> device.withWiring(written.wiring()));

    /** When a written value begins to act. */
    public enum Acts {
        AT_ONCE("at once"),
        WHILE_DISABLED("while disabled"),
        AFTER_RESTART("after a restart");

        private final String words;

        Acts(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    private final String words;
    private final Acts acts;
    private final List<String> pointers;
    private final Function<Axis, Object> values;
    private final BinaryOperator<Axis> take;

    ParameterGroup(String words, Acts acts, List<String> pointers, Function<Axis, Object> values, BinaryOperator<Axis> take) {
        this.words = words;
        this.acts = acts;
        this.pointers = pointers;
        this.values = values;
        this.take = take;
    }

    public String words() {
        return words;
    }

    public Acts acts() {
        return acts;
    }

    /** Where its values stand in the document of an axis, JSON pointers. */
    public List<String> pointers() {
        return pointers;
    }

    /** Both axes have the same values in this group. */
    public boolean same(Axis one, Axis other) {
        return values.apply(one).equals(values.apply(other));
    }

    /** An axis with the values of this group taken from another. */
    public Axis taken(Axis device, Axis written) {
        return take.apply(device, written);
    }
}
