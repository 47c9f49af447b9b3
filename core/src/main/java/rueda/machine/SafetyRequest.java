package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;

/**
 * Somebody or something that asks the guards of a machine: a door, an emergency stop. It has two channels, both closed at rest.
 *
 * @param name        1 to 80 characters, no other request has it
 * @param reaction    time from what happens until its contacts open, ms, 0 to 1000: of the sensor, as its maker tells it
 * @param filter      how long a change of a channel must stand before it counts, ms, 0 to 1000
 * @param discrepancy how long the channels may differ, ms, 0 to 10 000
 * @param protection  what one comes past
 * @param stopping    time from what happens until the danger is over as it was measured on the machine, ms, 0 to 60 000; 0 where nobody has measured it
 */
@RecordBuilder
public record SafetyRequest(String name, double reaction, double filter, double discrepancy, Protection protection, double stopping) implements SafetyRequestBuilder.With {

    /** Most of a machine. */
    public static final int MOST = 32;
}
