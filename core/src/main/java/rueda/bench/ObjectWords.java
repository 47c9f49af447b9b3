package rueda.bench;

import rueda.bus.ProcessDataLayout;
import rueda.drive.ControlWord;
import rueda.drive.DriveObject;
import rueda.machine.Mistake;
import rueda.plant.Mistakes;
import rueda.plcopen.MotionAxis;

/** Objects of IEC 61800-7-201 travel as they are. Not thread-safe. */
final class ObjectWords implements AxisWords {

    private final MotionAxis motion;
    private final ProcessDataLayout outputs;
    private final ProcessDataLayout inputs;
    private final Mistakes mistakes;
    private final int controlword;
    private final int target;
    private final int mode;
    private final int torque;
    /** the touch probe function where no tag gives it its value */
    private final int probes;
    private final int statusword;
    private final int position;
    private final int modeDisplay;

    ObjectWords(MotionAxis motion, ProcessDataLayout outputs, ProcessDataLayout inputs, Mistakes mistakes) {
        this.motion = motion;
        this.outputs = outputs;
        this.inputs = inputs;
        this.mistakes = mistakes;
        controlword = entry(outputs, DriveObject.CONTROLWORD);
        target = entry(outputs, DriveObject.TARGET_POSITION);
        mode = entry(outputs, DriveObject.MODE);
        torque = entry(outputs, DriveObject.TARGET_TORQUE);
        int function = entry(outputs, DriveObject.PROBE_FUNCTION);
        probes = function >= 0 && outputs.entries().get(function).hasTag() ? -1 : function;
        statusword = entry(inputs, DriveObject.STATUSWORD);
        position = entry(inputs, DriveObject.POSITION_ACTUAL);
        modeDisplay = entry(inputs, DriveObject.MODE_DISPLAY);
    }

    private static int entry(ProcessDataLayout layout, DriveObject object) {
        return layout.indexOf(object.index(), object.subIndex());
    }

    @Override
    public int controlEntry() {
        return controlword;
    }

    @Override
    public int statusEntry() {
        return statusword;
    }

    @Override
    public boolean onlyOfThisCycle() {
        return true;
    }

    @Override
    public void read(byte[] image) {
        motion.read(statusword < 0 ? 0 : (int) inputs.read(image, statusword),
                position < 0 ? 0 : inputs.readSigned(image, position),
                modeDisplay < 0 ? 0 : (int) inputs.readSigned(image, modeDisplay));
    }

    @Override
    public void stop(byte[] image) {
        if (controlword >= 0) {
            outputs.write(image, controlword, QUICK_STOP);
        }
    }

    @Override
    public void write(byte[] image, boolean halted) {
        if (controlword >= 0) {
            outputs.write(image, controlword, halted ? QUICK_STOP : motion.controlword() | (mistakes.has(Mistake.HOMING_BIT_HELD) ? ControlWord.HOMING_START : 0));
        }
        if (target >= 0) {
            outputs.write(image, target, motion.targetWire());
        }
        if (mode >= 0) {
            outputs.write(image, mode, motion.mode());
        }
        if (torque >= 0) {
            outputs.write(image, torque, motion.targetTorque());
        }
        if (probes >= 0) {
            outputs.write(image, probes, motion.probeFunction());
        }
    }
}
