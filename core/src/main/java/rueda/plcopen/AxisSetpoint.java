package rueda.plcopen;

/** What an axis is commanded in a bus cycle, user units, s: what one generator leaves, the next one takes over. Not thread-safe. */
final class AxisSetpoint {

    double position;
    double velocity;
    double acceleration;

    void standAt(double place) {
        position = place;
        stand();
    }

    void stand() {
        velocity = 0;
        acceleration = 0;
    }
}
