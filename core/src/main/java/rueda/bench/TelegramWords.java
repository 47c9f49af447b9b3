package rueda.bench;

import rueda.bus.ProcessDataLayout;
import rueda.bus.ProfiDriveSignal;
import rueda.drive.OperationMode;
import rueda.drive.ProfiDriveWords;
import rueda.machine.Axis;
import rueda.machine.Bus;
import rueda.plcopen.MotionAxis;
import rueda.quantity.CountScaler;
import rueda.quantity.Modulo;

/**
 * The PLC's side of a PROFIdrive telegram: control and status words, speed as N4 of the motor's highest speed, and for dynamic
 * servo control the position deviation in encoder counts, from the last G1_XIST1 (IEC 61800-7-203). Not thread-safe.
 */
final class TelegramWords implements AxisWords {

    private static final int LIFE_SIGNS = 15;

    private final MotionAxis motion;
    private final ProcessDataLayout outputs;
    private final ProcessDataLayout inputs;
    private final int[] at = new int[ProfiDriveSignal.values().length];
    private final CountScaler countsPerWire;
    private final CountScaler wirePerCount;
    /** wire units after which an endless axis begins again, 0 with ends */
    private final long range;
    private final Modulo wrapped;
    /** share of the highest speed per count and bus cycle */
    private final double sharePerCount;
    private double feedForward;
    private long gain;
    /** position of the encoder, counted on beyond 32 bits */
    private long counts;
    private long targetBefore;
    private int life;

    TelegramWords(Bus bus, Axis axis, MotionAxis motion, ProcessDataLayout outputs, ProcessDataLayout inputs) {
        this.motion = motion;
        this.outputs = outputs;
        this.inputs = inputs;
        for (ProfiDriveSignal signal : ProfiDriveSignal.values()) {
            at[signal.ordinal()] = (signal.toDrive() ? outputs : inputs).indexOf(signal.number(), 0);
        }
        countsPerWire = new CountScaler(axis.electronicGear());
        wirePerCount = new CountScaler(axis.electronicGear().inverse());
        range = axis.wireModulo();
        wrapped = new Modulo(Math.max(1, range));
        double countsPerCycleAtTop = axis.motor().maxSpeed() / 60 * axis.encoder().countsPerTurn() * bus.cycleMicros() * 1e-6;
        sharePerCount = 1 / countsPerCycleAtTop;
        take(axis);
    }

    @Override
    public void take(Axis parameters) {
        feedForward = parameters.control().feedForward();
        gain = Math.round(parameters.control().positionGain() * 1000);
    }

    @Override
    public int controlEntry() {
        return at(ProfiDriveSignal.STW1);
    }

    @Override
    public int statusEntry() {
        return at(ProfiDriveSignal.ZSW1);
    }

    /** A sign of life goes with each cycle. */
    @Override
    public boolean onlyOfThisCycle() {
        return false;
    }

    @Override
    public void read(byte[] image) {
        int zsw1 = at(ProfiDriveSignal.ZSW1) < 0 ? 0 : (int) inputs.read(image, at(ProfiDriveSignal.ZSW1));
        if (at(ProfiDriveSignal.G1_XIST1) >= 0) {
            counts += (int) (inputs.read(image, at(ProfiDriveSignal.G1_XIST1)) - counts);
        }
        long wire = wirePerCount.scale(counts);
        motion.read(ProfiDriveWords.statusword(zsw1), range == 0 ? wire : wrapped.of(wire), ProfiDriveWords.modeDisplay(zsw1));
    }

    @Override
    public void stop(byte[] image) {
        put(image, ProfiDriveSignal.STW1, ProfiDriveWords.stw1(QUICK_STOP, OperationMode.CYCLIC_SYNCHRONOUS_POSITION));
    }

    @Override
    public void write(byte[] image, boolean halted) {
        put(image, ProfiDriveSignal.STW1, ProfiDriveWords.stw1(halted ? QUICK_STOP : motion.controlword(), motion.mode()));
        life = life % LIFE_SIGNS + 1;
        put(image, ProfiDriveSignal.STW2, life << 12);
        long target = countsPerWire.scale(range == 0 ? motion.targetWire() : nearest(motion.targetWire()));
        put(image, ProfiDriveSignal.XERR, target - counts);
        put(image, ProfiDriveSignal.NSOLL_B, ProfiDriveSignal.n4(feedForward * (target - targetBefore) * sharePerCount));
        put(image, ProfiDriveSignal.NSOLL_A, ProfiDriveSignal.n2(feedForward * (target - targetBefore) * sharePerCount));
        put(image, ProfiDriveSignal.KPC, gain);
        targetBefore = target;
    }

    /** The target of an endless axis, counted on: the one nearest to where it is. */
    private long nearest(long target) {
        long here = wirePerCount.scale(counts);
        long way = wrapped.of(target - here);
        return here + (way > range / 2 ? way - range : way);
    }

    private int at(ProfiDriveSignal signal) {
        return at[signal.ordinal()];
    }

    private void put(byte[] image, ProfiDriveSignal signal, long value) {
        if (at(signal) >= 0) {
            outputs.write(image, at(signal), value);
        }
    }
}
