package rueda.drive;

import static rueda.drive.DriveObject.QUICK_STOP_DECELERATION;

/** Powered and not enabled: the axis is brought to rest on the quick stop deceleration, 6085h. No allocation; not thread-safe. */
final class StoppingRamp implements SetpointSource {

    private final ObjectDictionary dictionary;
    private final RampedSetpoint ramped;

    StoppingRamp(ObjectDictionary dictionary, RampedSetpoint ramped) {
        this.dictionary = dictionary;
        this.ramped = ramped;
    }

    @Override
    public void step(int number) {
        ramped.lead();
        ramped.step(0, 0, dictionary.get(QUICK_STOP_DECELERATION));
    }
}
