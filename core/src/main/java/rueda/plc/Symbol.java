package rueda.plc;

import rueda.plc.code.Address;
import rueda.plc.type.DataType;

/**
 * A declared name and what it stands for.
 *
 * @param name     as declared
 * @param address  where its value lies
 * @param refusal  why it cannot be assigned, or null when it can
 * @param constant its value when it is known before the program runs, else null
 */
record Symbol(String name, DataType type, Address address, String refusal, Expression constant) {

}
