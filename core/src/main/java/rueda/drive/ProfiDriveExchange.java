package rueda.drive;

import rueda.bus.ProcessDataLayout;
import rueda.bus.ProfiDriveSignal;
import rueda.quantity.CountScaler;
import rueda.quantity.Modulo;

/**
 * A PROFIdrive telegram (IEC 61800-7-203). What travels says what the drive does:
 * <ul>
 * <li>XERR (telegram 5): it closes the position loop over the deviation that the PLC sends (dynamic servo control): target = XERR + the
 * G1_XIST1 that the PLC knew, so that the loop does not wait for the bus.
 * <li>A speed setpoint with an encoder (telegram 3): it follows the speed of each cycle; the PLC may close a position loop over it.
 * <li>A speed setpoint alone (telegrams 1 and 2): it comes to the speed on its ramps. STW1 bits 4 and 6 let the setpoint through, bit 5
 * clear freezes it.
 * <li>SATZANW (telegram 7): bit 6 starts the entry of the move list that it names, 0 to 127; bit 5 clear is an intermediate stop, bit 4
 * clear rejects the task; bit 11 finds the zero. AKTSATZ tells the running entry.
 * <li>MDI_TARPOS (telegram 9): with SATZANW bit 15 bit 6 starts the motion to the target, at MDI_VELOCITY; MDI_ACC and MDI_DEC are shares
 * of the default acceleration and deceleration (our choice), MDI_MOD bit 0 says absolute, bits 1 and 2 which way an
 * endless axis goes there (from memory): 0 the shorter one, 1 forward, 2 backward. Without bit 15 as telegram 7.
 * </ul>
 *
 * <p>G1_XIST1 counts from the zero of the axis once it has one (our choice). Not thread-safe; no allocation.
 */
final class ProfiDriveExchange implements CyclicExchange {

    private static final int SIGN_OF_LIFE = 0xF000;
    private static final int BLOCK = 0x7F;
    private static final int MDI = 1 << 15;
    private static final int MDI_ABSOLUTE = 1;
    /** by bits 1 and 2 of MDI_MOD: the direction option of 60F2h */
    private static final int[] MDI_WAYS = {ProfilePosition.SHORTER, ProfilePosition.FORWARD, ProfilePosition.BACKWARD, ProfilePosition.SHORTER};

    /** What the drive does with the telegram. */
    private enum Use { SERVO, SPEED, RAMPED_SPEED, BLOCKS, DIRECT }

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
    private final Use use;
    private final double wireSpeedPerRadian;
    private int stw1;
    private boolean rejected;
    private long frozen;
    private long acceleration;
    private long deceleration;

    /**
     * @param referenceSpeed     100 % of N2 and N4, rad/s
     * @param wrapped            range of an endless axis, null with ends
     * @param wireSpeedPerRadian wire units/s per rad/s
     */
    ProfiDriveExchange(ObjectDictionary dictionary, ProcessDataLayout outputs, ProcessDataLayout inputs, CountScaler wirePerCount, Modulo wrapped, double referenceSpeed, double wireSpeedPerRadian) {
        this.dictionary = dictionary;
        this.outputs = outputs;
        this.inputs = inputs;
        this.wirePerCount = wirePerCount;
        this.wrapped = wrapped;
        this.referenceSpeed = referenceSpeed;
        this.wireSpeedPerRadian = wireSpeedPerRadian;
        outputSignals = signals(outputs);
        inputSignals = signals(inputs);
        use = travels(outputs, ProfiDriveSignal.XERR) ? Use.SERVO : travels(outputs, ProfiDriveSignal.MDI_TARPOS) ? Use.DIRECT : travels(outputs, ProfiDriveSignal.SATZANW) ? Use.BLOCKS
                : travels(inputs, ProfiDriveSignal.G1_XIST1) ? Use.SPEED : Use.RAMPED_SPEED;
    }

    private static boolean travels(ProcessDataLayout layout, ProfiDriveSignal signal) {
        return layout.indexOf(signal.number(), 0) >= 0;
    }

    /** The parameters have been written: shares of the default acceleration and deceleration count from these. */
    void take() {
        acceleration = dictionary.get(DriveObject.PROFILE_ACCELERATION);
        deceleration = dictionary.get(DriveObject.PROFILE_DECELERATION);
    }

    /** The running task is rejected: STW1 bit 4 of a positioning telegram is clear. */
    boolean rejects() {
        return rejected;
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
        int word = (int) outputs.read(image, 0);
        if (!ProfiDriveWords.byPlc(word)) {
            return;
        }
        stw1 = word;
        rejected = false;
        int block = 0;
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
                case SATZANW -> block = (int) outputs.read(image, i);
                case MDI_TARPOS -> dictionary.set(DriveObject.TARGET_POSITION, outputs.readSigned(image, i));
                case MDI_VELOCITY -> dictionary.set(DriveObject.PROFILE_VELOCITY, outputs.read(image, i));
                case MDI_ACC -> dictionary.set(DriveObject.PROFILE_ACCELERATION, share(acceleration, outputs.readSigned(image, i)));
                case MDI_DEC -> dictionary.set(DriveObject.PROFILE_DECELERATION, share(deceleration, outputs.readSigned(image, i)));
                default -> { }
            }
        }
        switch (use) {
            case SERVO -> order(ProfiDriveWords.controlword(word), ProfiDriveWords.mode(word, OperationMode.CYCLIC_SYNCHRONOUS_POSITION));
            case SPEED -> {
                setpoint(word);
                order(ProfiDriveWords.controlword(word), ProfiDriveWords.mode(word, OperationMode.CYCLIC_SYNCHRONOUS_VELOCITY));
            }
            case RAMPED_SPEED -> {
                setpoint(word);
                order(ProfiDriveWords.controlword(word), ProfiDriveWords.mode(word, OperationMode.PROFILE_VELOCITY));
            }
            case BLOCKS, DIRECT -> positioning(image, word, block);
        }
    }

    private void order(int controlword, int mode) {
        dictionary.set(DriveObject.CONTROLWORD, controlword);
        dictionary.set(DriveObject.MODE, mode);
    }

    /** The speed setpoint as the bits of the ramp let it through. */
    private void setpoint(int word) {
        if ((word & ProfiDriveWords.UNFREEZE_RAMP) != 0) {
            frozen = Math.round(speedSetpoint * wireSpeedPerRadian);
        }
        boolean through = (word & ProfiDriveWords.ENABLE_RAMP) != 0 && (word & ProfiDriveWords.ENABLE_SETPOINT) != 0;
        dictionary.set(DriveObject.TARGET_VELOCITY, through ? frozen : 0);
    }

    private void positioning(byte[] image, int word, int block) {
        boolean direct = use == Use.DIRECT && (block & MDI) != 0;
        boolean homing = (word & ProfiDriveWords.START_HOMING) != 0;
        rejected = (word & ProfiDriveWords.DO_NOT_REJECT) == 0;
        int controlword = word & ProfiDriveWords.SAME_IN_CONTROL;
        if (homing) {
            order(controlword | ControlWord.HOMING_START, OperationMode.HOMING);
            return;
        }
        controlword |= (word & ProfiDriveWords.ACTIVATE_TASK) != 0 ? ControlWord.NEW_SETPOINT : 0;
        controlword |= (word & ProfiDriveWords.NO_INTERMEDIATE_STOP) == 0 ? ControlWord.HALT : 0;
        if (direct) {
            int at = outputs.indexOf(ProfiDriveSignal.MDI_MOD.number(), 0);
            long how = at < 0 ? MDI_ABSOLUTE : outputs.read(image, at);
            boolean absolute = (how & MDI_ABSOLUTE) != 0;
            dictionary.set(DriveObject.POSITIONING_OPTION, (long) MDI_WAYS[(int) (how >> 1) & 3] << ProfilePosition.ROTARY_DIRECTION);
            order(controlword | ControlWord.CHANGE_IMMEDIATELY | (absolute ? 0 : ControlWord.RELATIVE), OperationMode.PROFILE_POSITION);
        } else {
            dictionary.set(DriveObject.LIST_WANTED, block & BLOCK);
            order(controlword, OperationMode.MOVE_LIST);
        }
    }

    private static long share(long whole, long n2) {
        return Math.max(1, Math.round(whole * Math.max(0, ProfiDriveSignal.fromN2(n2))));
    }

    @Override
    public void sample(byte[] image) {
        for (int i = 0; i < inputSignals.length; i++) {
            if (inputSignals[i] == null) {
                continue;
            }
            switch (inputSignals[i]) {
                case ZSW1 -> inputs.write(image, i, statusWord());
                case ZSW2 -> inputs.write(image, i, lifeSign);
                case NIST_A -> inputs.write(image, i, ProfiDriveSignal.n2(speed / referenceSpeed));
                case NIST_B -> inputs.write(image, i, ProfiDriveSignal.n4(speed / referenceSpeed));
                case G1_XIST1, G1_XIST2 -> inputs.write(image, i, position);
                case XIST_A -> inputs.write(image, i, dictionary.get(DriveObject.POSITION_ACTUAL));
                case AKTSATZ -> inputs.write(image, i, Math.max(0, dictionary.get(DriveObject.LIST_ENTRY)) & BLOCK | (dictionary.get(DriveObject.MODE_DISPLAY) == OperationMode.PROFILE_POSITION ? MDI : 0));
                default -> { }
            }
        }
    }

    private int statusWord() {
        int status = (int) dictionary.get(DriveObject.STATUSWORD);
        int mode = (int) dictionary.get(DriveObject.MODE_DISPLAY);
        if (use != Use.BLOCKS && use != Use.DIRECT) {
            return ProfiDriveWords.zsw1(status, mode);
        }
        boolean taken = mode == OperationMode.PROFILE_POSITION ? (status & StatusWord.MODE_12) != 0
                : (stw1 & ProfiDriveWords.ACTIVATE_TASK) != 0 && (dictionary.get(DriveObject.LIST_STATUS) & ListStatus.ERROR) == 0;
        boolean stopped = Math.abs(dictionary.get(DriveObject.VELOCITY_ACTUAL)) <= dictionary.get(DriveObject.VELOCITY_THRESHOLD);
        return ProfiDriveWords.positioningZsw1(status, mode, taken, stopped, (dictionary.get(DriveObject.LIST_STATUS) & ListStatus.ERROR) != 0);
    }
}
