package rueda.plc.code;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import rueda.plc.run.CallPlace;
import rueda.plc.run.StatementPlace;

/** Places in the texts that code names by a number: lines with statements, and calls of function blocks in Java. */
final class Places {

    private final Map<StatementPlace, Integer> statements = new LinkedHashMap<>();
    private final List<CallPlace> calls = new ArrayList<>();

    int statement(UnitCode unit, int line) {
        return statements.computeIfAbsent(new StatementPlace(unit.name(), unit.file(), line), place -> statements.size());
    }

    int call(String file, int line) {
        calls.add(new CallPlace(file, line));
        return calls.size() - 1;
    }

    List<StatementPlace> statements() {
        return List.copyOf(statements.keySet());
    }

    List<CallPlace> calls() {
        return calls;
    }
}
