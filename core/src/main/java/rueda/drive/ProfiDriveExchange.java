package rueda.drive;

import rueda.bus.ProcessDataLayout;
import rueda.bus.ProfiDriveSignal;
import rueda.quantity.CountScaler;
import rueda.quantity.Modulo;

/**
 * A PROFIdrive telegram (IEC 61800-7-203). With telegram 5 the drive closes the position loop over the deviation that the PLC sends
 * (dynamic servo control): target = XERR + the G1_XIST1 that the PLC knew, so that the loop does not wait for the bus.
 *
 * <p>G1_XIST1 counts from the zero of the axis once it has one (our choice). Not thread-safe; no allocation.
 */
final class ProfiDriveExchange implements CyclicExchange {

    private static final int SIGN_OF_LIFE = 0xF000;

    private final ObjectDictionary dictionary;
    private final ProcessDataLayout outputs;
    private final ProcessDataLayout inputs;
    private final ProfiDriveSignal[] outputSignals;
    private final ProfiDriveSignal[] inputSignals;
    private final CountScaler wirePerCount;
    /** null with ends */
    private final Modulo wrapped;
    private final double referenceSpeed;
    private long position;
    private double speedSetpoint;
    private double gain = Double.NaN;
    private int lifeSign;
    private double speed;

    /**
     * @param referenceSpeed 100 % of N2 and N4, rad/s
     * @param wrapped        range of an endless axis, null with ends
     */
    ProfiDriveExchange(ObjectDictionary dictionary, ProcessDataLayout outputs, ProcessDataLayout inputs, CountScaler wirePerCount, Modulo wrapped, double referenceSpeed) {
        this.dictionary = dictionary;
        this.outputs = outputs;
        this.inputs = inputs;
        this.wirePerCount = wirePerCount;
        this.wrapped = wrapped;
        this.referenceSpeed = referenceSpeed;
        outputSignals = signals(outputs);
        inputSignals = signals(inputs);
    }

    private static ProfiDriveSignal[] signals(ProcessDataLayout layout) {
        return layout.entries().stream().map(e -> ProfiDriveSignal.numbered(e.object())).toArray(ProfiDriveSignal[]::new);
    }

    /** What the encoder shows at the end of a bus cycle. @param counts from the zero of the axis  @param speed rad/s */
    void actual(long counts, double speed) {
        position = counts;
        this.speed = speed;
    }

    /** Speed that travels with the setpoint, rad/s. */
    double speedSetpoint() {
        return speedSetpoint;
    }

    /** Position gain that the PLC gives, 1/s; NaN when it gives none. */
    double gain() {
        return gain;
    }

    @Override
    public void latch(byte[] image) {
        if (outputSignals.length == 0 || outputSignals[0] != ProfiDriveSignal.STW1) {
            return;
        }
        int stw1 = (int) outputs.read(image, 0);
        if (!ProfiDriveWords.byPlc(stw1)) {
            return;
        }
        dictionary.set(DriveObject.CONTROLWORD, ProfiDriveWords.controlword(stw1));
        dictionary.set(DriveObject.MODE, ProfiDriveWords.mode(stw1));
        for (int i = 1; i < outputSignals.length; i++) {
            if (outputSignals[i] == null) {
                continue;
            }
            switch (outputSignals[i]) {
                case NSOLL_A -> speedSetpoint = ProfiDriveSignal.fromN2(outputs.readSigned(image, i)) * referenceSpeed;
                case NSOLL_B -> speedSetpoint = ProfiDriveSignal.fromN4(outputs.readSigned(image, i)) * referenceSpeed;
                case XERR -> {
                    long wire = wirePerCount.scale(position + outputs.readSigned(image, i));
                    dictionary.set(DriveObject.TARGET_POSITION, wrapped == null ? wire : wrapped.of(wire));
                }
                case KPC -> gain = outputs.read(image, i) * 1e-3;
                case STW2 -> lifeSign = (int) outputs.read(image, i) & SIGN_OF_LIFE;
                default -> { }
            }
        }
    }

    @Override
    public void sample(byte[] image) {
        for (int i = 0; i < inputSignals.length; i++) {
            if (inputSignals[i] == null) {
                continue;
            }
            switch (inputSignals[i]) {
                case ZSW1 -> inputs.write(image, i, ProfiDriveWords.zsw1((int) dictionary.get(DriveObject.STATUSWORD), (int) dictionary.get(DriveObject.MODE_DISPLAY)));
                case ZSW2 -> inputs.write(image, i, lifeSign);
                case NIST_A -> inputs.write(image, i, ProfiDriveSignal.n2(speed / referenceSpeed));
                case NIST_B -> inputs.write(image, i, ProfiDriveSignal.n4(speed / referenceSpeed));
                case G1_XIST1, G1_XIST2 -> inputs.write(image, i, position);
                case XIST_A -> inputs.write(image, i, dictionary.get(DriveObject.POSITION_ACTUAL));
                default -> { }
            }
        }
    }
}
