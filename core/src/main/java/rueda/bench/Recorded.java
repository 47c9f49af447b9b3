package rueda.bench;

import rueda.machine.Axis;

/** What a recording has: all of it, or only what somebody will look at. */
public interface Recorded {

    Recorded ALL = new Recorded() {
        @Override
        public boolean axis(Axis axis) {
            return true;
        }

        @Override
        public boolean value(String name) {
            return true;
        }
    };

    /** The signals of an axis. */
    boolean axis(Axis axis);

    /** A value of the program, by its name. */
    boolean value(String name);
}
