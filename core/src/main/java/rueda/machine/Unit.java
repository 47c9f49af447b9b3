package rueda.machine;

import rueda.quantity.UserUnit;

/** @param symbol unit of positions, such as mm, ° or g, or a name of one's own  @param decimals decimals on the wire, 0 to 6 */
public record Unit(String symbol, int decimals) {
    public UserUnit user() {
        return UserUnit.of(symbol);
    }
}
