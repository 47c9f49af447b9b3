package rueda.plc.code;

import java.util.List;

/**
 * A checked unit.
 *
 * @param name    as the classes of others call it
 * @param file    name of its text
 * @param lent    cells that keep the places of its VAR_IN_OUT: they hold all through a call
 * @param initial first values that are no constants
 */
public record UnitCode(String name, String file, List<Address> lent, List<Action> body, List<Action> initial) {
}
