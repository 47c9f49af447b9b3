package rueda.drive;

/** Not powered by the state machine, but with torque while the holding brake moves: the setpoint stands. No allocation; not thread-safe. */
final class BrakeHold implements SetpointSource {

    private final Setpoint setpoint;

    BrakeHold(Setpoint setpoint) {
        this.setpoint = setpoint;
    }

    @Override
    public void step(int number) {
        setpoint.speed = 0;
        setpoint.acceleration = 0;
    }
}
