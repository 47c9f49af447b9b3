package rueda.bench;

import java.util.ArrayList;
import java.util.List;
import rueda.bench.Stand.Disturbance;
import rueda.machine.Axis;
import rueda.machine.Bus;
import rueda.machine.SafetyRequest;

/**
 * The courses that axes have taken in benches one after the other, by all that makes an axis what it is. Repeated with another load on one axis, the others
 * mostly do what they did before.
 *
 * <p>Memory: as much as it is given, and {@value #MOST_OF_AN_AXIS} courses of each axis: where everything varies it is not worth keeping more. Not thread-safe.
 */
final class Courses {

    static final long MOST_BYTES = 64L << 20;
    private static final int MOST_OF_AN_AXIS = 4;

    /**
     * What an axis begins as.
     *
     * @param number   of the axis: a guard's clock begins by it
     * @param drive    as its device is set
     * @param stands   as it really is
     * @param chance   seed of the noise of its encoder, 0 where it has none
     * @param recorded all of it is seen
     */
    record Beginning(int number, Bus bus, Axis drive, Axis stands, Disturbance disturbed, long chance, List<SafetyRequest> requests, boolean recorded) {
    }

    private record Known(Beginning beginning, Course course) {
    }

    private final List<Known> known = new ArrayList<>();
    private long left;

    /** @param most bytes that all together may take */
    Courses(long most) {
        left = most;
    }

    /** The course of an axis that begins so, or null. */
    Course of(Beginning beginning) {
        for (Known one : known) {
            if (one.beginning.number() == beginning.number() && one.beginning.equals(beginning)) {
                return one.course;
            }
        }
        return null;
    }

    /** An axis that begins so is to keep what becomes of it. @return null where that is not worth it */
    Course begun(Beginning beginning, int outputs, int inputs, int values) {
        long many = known.stream().filter(one -> one.beginning.number() == beginning.number()).count();
        if (many == MOST_OF_AN_AXIS) {
            return null;
        }
        Course course = new Course(outputs, inputs, values, this::takes);
        if (!takes(course.size())) {
            return null;
        }
        known.add(new Known(beginning, course));
        return course;
    }

    private boolean takes(long bytes) {
        if (bytes > left) {
            return false;
        }
        left -= bytes;
        return true;
    }
}
