package rueda.plant;

import rueda.machine.Axis;
import rueda.machine.Encoder;
import rueda.machine.Following;
import rueda.machine.Load;
import rueda.machine.Mistake;
import rueda.machine.MotorSide;

/**
 * One motor with its load, as the drive meets it: torque in; encoder counts, index pulse and switches out.
 *
 * <p>An incremental encoder starts at 0 wherever it stands; an absolute one knows its place within one turn, or within
 * as many turns as it has bits for. Switches stand at the load. No allocation in {@link #step}. Not thread-safe.
 */
public final class ServoPlant {

    /** Bits of {@link #switches}. */
    public static final int NEGATIVE_LIMIT = 1;
    public static final int POSITIVE_LIMIT = 2;
    public static final int REFERENCE_CAM = 4;

    /** A bouncing contact opens and closes for so many sub-steps after an edge, and for so many at a time. */
    private static final int BOUNCE = 24;
    private static final int BOUNCE_PART = 5;

    private final double dt;
    private Axis axis;
    private Mechanics mechanics;
    /** counts by which the encoder is mounted turned */
    private final long mounted;
    /** null for an encoder without noise */
    private final EncoderNoise noise;
    /** what turns the encoder that is followed, null without one */
    private final MasterShaft masterShaft;
    private final Encoder encoder;
    private final Mistakes mistakes;
    /** mistakes that were there at the last step */
    private int mistakesBefore;
    private int encoderSign;
    /** counts that were there when the direction of counting changed last */
    private long countsKept;
    private final Encoder loadEncoder;
    private final double loadCountsPerRadian;
    private boolean loadEncoderBroken;
    private int loadEncoderSign;
    private long loadCountsKept;
    private long loadCountsAtPowerUp;
    private final long countsPerTurn;
    private final double countsPerRadian;
    private final double unitsPerRadian;
    private final boolean endless;
    /** motor angle after which the cam of an endless axis comes again, rad, and its inverse */
    private final double turn;
    private final double perTurn;
    private final double negativeLimitAngle;
    private final double positiveLimitAngle;
    private final double camFromAngle;
    private final double camToAngle;
    private long countsAtPowerUp;
    private long counts;
    /** angle of the load after the last step, rad at the motor */
    private double load;
    private int trippedByHand;
    private boolean camBefore;
    private int sinceCamEdge = BOUNCE;

    public ServoPlant(Axis axis, double dt) {
        this(axis, dt, Mistakes.none());
    }

    /** @param mistakes what is wrong at the machine, looked at while it runs */
    public ServoPlant(Axis axis, double dt, Mistakes mistakes) {
        this(axis, dt, mistakes, 0, null);
    }

    /**
     * @param mounted by how much the encoder is turned on its shaft, turns, 0 to 1
     * @param noise   of the encoder; null for none
     */
    public ServoPlant(Axis axis, double dt, Mistakes mistakes, double mounted, EncoderNoise noise) {
        this.mistakes = mistakes;
        this.axis = axis;
        this.dt = dt;
        this.noise = noise;
        this.mounted = Math.round(mounted * axis.encoder().countsPerTurn());
        mechanics = Mechanics.of(axis, dt);
        masterShaft = axis.following().source() == Following.Source.ENCODER ? new MasterShaft(axis.following().encoder(), dt, mistakes) : null;
        encoder = axis.encoder();
        loadEncoder = axis.loadEncoder().encoder();
        loadCountsPerRadian = loadEncoder.countsPerTurn() / (2 * Math.PI) / axis.train().gear().toDouble();
        countsPerTurn = encoder.countsPerTurn();
        countsPerRadian = countsPerTurn / (2 * Math.PI);
        unitsPerRadian = axis.motorSide().unitsPerRadian();
        endless = axis.endless();
        turn = axis.travel().length() / unitsPerRadian;
        perTurn = 1 / turn;
        negativeLimitAngle = endless ? Double.NEGATIVE_INFINITY : axis.travel().negativeLimit() / unitsPerRadian;
        positiveLimitAngle = endless ? Double.POSITIVE_INFINITY : axis.travel().positiveLimit() / unitsPerRadian;
        camFromAngle = !endless && axis.travel().camFrom() <= 0 && axis.travel().camTo() > 0 ? Double.NEGATIVE_INFINITY : axis.travel().camFrom() / unitsPerRadian;
        // A cam that reaches an end of the travel goes on behind it: the axis presses a little into a hard stop.
        camToAngle = !endless && axis.travel().camTo() >= axis.travel().length() ? Double.POSITIVE_INFINITY : axis.travel().camTo() / unitsPerRadian;
        wire();
        switchOnAt(axis.travel().parkedAt());
    }

    /** The lines of the encoders are as the mistakes say. */
    private void wire() {
        mistakesBefore = mistakes.mask();
        encoderSign = mistakes.has(Mistake.ENCODER_REVERSED) ? -1 : 1;
        loadEncoderSign = mistakes.has(Mistake.LOAD_ENCODER_REVERSED) ? -1 : 1;
        loadEncoderBroken = mistakes.has(Mistake.LOAD_ENCODER_BROKEN);
    }

    /** A line has been changed while the device is on: what has been counted stays, an absolute encoder whose line is whole again is read anew. */
    private void rewire() {
        int signBefore = encoderSign;
        boolean brokenBefore = loadEncoderBroken;
        long loadBefore = loadCounts();
        wire();
        if (encoderSign != signBefore) {
            countsKept = counts - (trueCounts() - countsAtPowerUp) * encoderSign;
        }
        boolean readAnew = brokenBefore && !loadEncoderBroken && loadEncoder.kind() != Encoder.Kind.INCREMENTAL;
        loadCountsKept = readAnew ? 0 : loadBefore - (loadEncoderBroken ? 0 : (trueLoadCounts() - loadCountsAtPowerUp) * loadEncoderSign);
    }

    private long trueCounts() {
        return (long) Math.floor(mechanics.angle() * countsPerRadian) + mounted;
    }

    private long trueLoadCounts() {
        return (long) Math.floor(load * loadCountsPerRadian);
    }

    /**
     * Switches the bench on with the axis standing somewhere.
     *
     * @param place user units from the negative hard stop
     */
    public void switchOnAt(double place) {
        mechanics.place(place / unitsPerRadian);
        load = mechanics.loadAngle();
        mechanics.brake(true);
        powerUpEncoders();
    }

    /** The device has been switched on: an incremental encoder begins at 0, an absolute one with what it knows. */
    public void powerUpEncoders() {
        wire();
        countsKept = 0;
        countsAtPowerUp = forgotten(encoder, trueCounts());
        counts = (trueCounts() - countsAtPowerUp) * encoderSign;
        loadCountsKept = 0;
        loadCountsAtPowerUp = forgotten(loadEncoder, trueLoadCounts());
    }

    /** Counts that an encoder does not know after power-up. */
    private static long forgotten(Encoder encoder, long counts) {
        if (encoder.kind() == Encoder.Kind.INCREMENTAL) {
            return counts;
        }
        long range = encoder.countsPerTurn() << encoder.multiTurnBits();
        return Math.floorDiv(counts, range) * range;
    }

    /** Counts of the encoder on the load; they stand still when its line is broken. */
    public long loadCounts() {
        return loadCountsKept + (loadEncoderBroken ? 0 : (trueLoadCounts() - loadCountsAtPowerUp) * loadEncoderSign);
    }

    /** A line of the encoder on the load is broken. */
    public boolean loadEncoderBroken() {
        return loadEncoderBroken;
    }

    /** @param torque demanded motor torque, N·m */
    public void step(double torque) {
        if (mistakes.mask() != mistakesBefore) {
            rewire();
        }
        if (masterShaft != null) {
            masterShaft.step();
        }
        mechanics.step(torque);
        load = mechanics.loadAngle();
        counts = countsKept + (trueCounts() - countsAtPowerUp) * encoderSign;
        if (noise != null) {
            counts += noise.next();
        }
    }

    /** The load becomes another one while it moves. @param mass kg along the line, or kg·m² at the last shaft where there is no line */
    public void load(double mass) {
        Load load = axis.load();
        boolean linear = axis.train().feed().linear();
        axis = axis.withLoad(new Load(linear ? mass : load.mass(), linear ? load.inertia() : mass, load.coulomb(), load.viscous(), load.slope(), load.stiffness(), load.damping(), load.backlash()));
        Mechanics changed = Mechanics.of(axis, dt);
        changed.goOnFrom(mechanics);
        mechanics = changed;
    }

    /** The load as it is now: kg along a line, else kg·m² at the last shaft. */
    public double load() {
        return axis.train().feed().linear() ? axis.load().mass() : axis.load().inertia();
    }

    /** Something pushes the load from now on. @param force N along the line, or N·m at the last shaft, in the positive direction */
    public void push(double force) {
        mechanics.push(force * MotorSide.lever(axis));
    }

    /** A hand turns the shaft, the brake held open. @param radians at the motor */
    public void turnByHand(double radians) {
        mechanics.place(mechanics.angle() + radians);
        load = mechanics.loadAngle();
    }

    /** Encoder counts: since power-up, or from the place an absolute encoder knew then. */
    public long counts() {
        return counts;
    }

    public long countsPerTurn() {
        return countsPerTurn;
    }

    /** Count, within one turn, at which the index pulse comes. */
    public long indexCount() {
        return Math.floorMod(countsKept - countsAtPowerUp * encoderSign, countsPerTurn);
    }

    /** State of the switches as their contacts show it, tripped by the load or by a hand. Call once a sub-step. */
    public int switches() {
        int state = trippedByHand | (load <= negativeLimitAngle ? NEGATIVE_LIMIT : 0) | (load >= positiveLimitAngle ? POSITIVE_LIMIT : 0)
                | (onReferenceCam() ? REFERENCE_CAM : 0);
        return mistakes.has(Mistake.CAM_BOUNCES) ? state & ~REFERENCE_CAM | (bounced((state & REFERENCE_CAM) != 0) ? REFERENCE_CAM : 0) : state;
    }

    private boolean bounced(boolean cam) {
        sinceCamEdge = cam == camBefore ? Math.min(BOUNCE, sinceCamEdge + 1) : 0;
        camBefore = cam;
        return sinceCamEdge < BOUNCE && sinceCamEdge / BOUNCE_PART % 2 == 1 ? !cam : cam;
    }

    /** A hand trips switches. @param switches bits of {@link #switches} */
    public void trip(int switches) {
        trippedByHand = switches;
    }

    public boolean negativeLimitReached() {
        return load <= negativeLimitAngle;
    }

    public boolean positiveLimitReached() {
        return load >= positiveLimitAngle;
    }

    public boolean onReferenceCam() {
        if (endless) {
            if (camToAngle <= camFromAngle) {
                return false;
            }
            double within = load - Math.floor(load * perTurn) * turn;
            return within >= camFromAngle && within < camToAngle;
        }
        return load >= camFromAngle && load < camToAngle;
    }

    /** Where the load stands, user units from the negative hard stop. */
    public double place() {
        return load * unitsPerRadian;
    }

    /** Speed of the load, user units/s. */
    public double speed() {
        return mechanics.loadSpeed() * unitsPerRadian;
    }

    /** The shaft under the encoder that is followed, or null. */
    public MasterShaft masterShaft() {
        return masterShaft;
    }

    public Mechanics mechanics() {
        return mechanics;
    }

    /** Place, in user units from the negative hard stop, at which a count is read. */
    public double placeOfCount(long count) {
        return ((count - countsKept) * encoderSign + countsAtPowerUp - mounted) / countsPerRadian * unitsPerRadian;
    }
}
