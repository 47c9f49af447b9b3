package rueda.plc;

import rueda.plc.code.Address;
import rueda.plc.type.DataType;

/**
 * What a name, an element, a member or a part of a bit string stands for: something that can be read and perhaps assigned.
 *
 * @param type     of the value; of a part of a bit string the type of the part
 * @param refusal  why it cannot be assigned, or null when it can
 * @param constant its value when it is known before the program runs, else null
 * @param part     null for the whole
 * @param name     as written, for what is said of it
 */
record Target(DataType type, Address address, String refusal, Expression constant, Part part, String name) {

    /** Bits of a bit string. @param whole its type  @param at lowest bit  @param bits how many */
    record Part(DataType whole, int at, int bits) {
    }

    static Target of(Symbol symbol) {
        return new Target(symbol.type(), symbol.address(), symbol.refusal(), symbol.constant(), null, symbol.name());
    }

    /** Something inside of it. */
    Target inner(DataType innerType, Address innerAddress, String innerName) {
        return new Target(innerType, innerAddress, refusal, null, null, innerName);
    }

    Target refused(String why) {
        return new Target(type, address, why, constant, part, name);
    }
}
