package rueda.machine;

/** What can be other than the document says when a proof is repeated. */
public enum Circumstance {
    MASS("mass of the load", "kg", 0, 1_000_000, Of.WORLD),
    INERTIA("inertia of the load", "kg·m²", 0, 1_000_000, Of.WORLD),
    FRICTION("friction, by what is entered,", "%", 0, 10_000, Of.WORLD),
    STIFFNESS("stiffness, by what is entered,", "%", 1, 10_000, Of.WORLD),
    PLAY("play", "u", 0, 1_000, Of.WORLD),
    SLOPE("slope of the line", "°", -90, 90, Of.WORLD),
    TORQUE("torque that the motor gives, by what is entered,", "%", 1, 1_000, Of.WORLD),
    CAM("reference cam moved by", "u", -1_000_000, 1_000_000, Of.WORLD),
    LIMIT_SWITCHES("limit switches moved inward by", "u", -1_000_000, 1_000_000, Of.WORLD),
    START("place at the begin, from the negative hard stop,", "u", 0, 1_000_000_000, Of.WORLD),
    INDEX("index pulse turned by", "°", 0, 360, Of.WORLD),
    ENCODER_NOISE("noise of the encoder, standard deviation,", "counts", 0, 1_000_000, Of.WORLD),
    CLOCK("error of the station's clock", "ppm", -500, 500, Of.WORLD),
    /** A frame that comes after its cycle is of no more use than one that is lost. */
    FRAMES_LOST("frames lost, or too late,", "%", 0, 100, Of.WORLD),
    POSITION_GAIN("position gain, by what is entered,", "%", 1, 10_000, Of.DRIVE),
    VELOCITY_GAIN("velocity gain, by what is entered,", "%", 1, 10_000, Of.DRIVE),
    TASK_JITTER("jitter of the tasks, up to,", "µs", 0, 100_000, Of.WORLD),
    MISTAKE("something is wrong", "", 0, 1_000, Of.WORLD),
    MOMENT("moment of a sentence of the script", "s", 0, 7_200, Of.SCRIPT);

    /** Where it is changed: on the stand, in the drive's parameters, or in the script. */
    public enum Of { WORLD, DRIVE, SCRIPT }

    private final String words;
    private final String unit;
    private final double least;
    private final double most;
    private final Of of;

    Circumstance(String words, String unit, double least, double most, Of of) {
        this.words = words;
        this.unit = unit;
        this.least = least;
        this.most = most;
        this.of = of;
    }

    public String words() {
        return words;
    }

    /** Its words before a value, without what that is measured by. */
    public String called() {
        return words.replaceFirst("(, by what is entered|, up to)?,$", "");
    }

    /** {@code u} stands for the user unit of the axis. */
    public String unit() {
        return unit;
    }

    /** It is one of an axis. */
    public boolean ofAxis() {
        return this != MOMENT && this != TASK_JITTER;
    }

    /** Least value that can be entered. */
    public double least() {
        return least;
    }

    /** Greatest value that can be entered. */
    public double most() {
        return most;
    }

    public Of of() {
        return of;
    }

    /** Why it changes nothing of an axis: that has no such thing; null where it does. */
    public String missingIn(Axis axis) {
        return switch (this) {
            case MASS, SLOPE -> axis.train().feed().linear() ? null : "The load of " + axis.name() + " does not move along a line: vary its inertia instead.";
            case STIFFNESS, PLAY -> axis.load().stiffness() > 0 ? null : "The load of " + axis.name() + " is rigid: enter its stiffness in the stage Scale first.";
            case LIMIT_SWITCHES -> axis.endless() ? axis.name() + " has no ends." : null;
            default -> null;
        };
    }
}
