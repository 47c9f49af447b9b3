package rueda.machine;

/**
 * Holding brake on the motor shaft, closed without power.
 *
 * @param torque        what it holds, N·m; 0 for no brake
 * @param releaseMillis from the order until it is open, ms
 * @param closeMillis   from the order until it holds, ms; the motor holds the load meanwhile
 */
public record Brake(double torque, int releaseMillis, int closeMillis) {

    public static final Brake NONE = new Brake(0, 0, 0);

    public boolean fitted() {
        return torque > 0;
    }
}
