package rueda.app.calc;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import rueda.app.calc.CalcController.HomingAnswer;
import rueda.machine.Axis;
import rueda.machine.Bus;
import rueda.machine.Machine;
import rueda.machine.Plc;

/**
 * Searches for zero that have been carried out: every page asks for that of every axis, and what comes out depends on nothing but the axis, the bus and
 * the times of the controller. The {@value #MOST} asked for last are kept. Thread-safe; who asks for the same at the same time computes it twice.
 */
@Component
class HomingSearches {

    /** Two machines of the largest kind. An answer has some kilobytes. */
    private static final int MOST = 256;

    /** @param plc without its texts: the axis is searched with a program of its own  @param number of the axis, which is in the findings */
    private record Question(Bus bus, Plc plc, Axis axis, int number) {
    }

    /** in the order of their last use; guarded by itself */
    private final Map<Question, HomingAnswer> kept = new LinkedHashMap<>(MOST, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<Question, HomingAnswer> eldest) {
            return size() > MOST;
        }
    };

    /** @param number of an axis without refused entries */
    HomingAnswer of(Machine machine, int number) {
        Question question = new Question(machine.bus(), machine.plc().withFiles(List.of()), machine.axes().get(number), number);
        synchronized (kept) {
            HomingAnswer answer = kept.get(question);
            if (answer != null) {
                return answer;
            }
        }
        HomingAnswer answer = HomingAnswer.of(machine, number);
        synchronized (kept) {
            kept.put(question, answer);
        }
        return answer;
    }
}
