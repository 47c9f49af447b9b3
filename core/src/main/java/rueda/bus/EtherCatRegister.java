package rueda.bus;

/** Registers of an EtherCAT station that a master reads and writes (ETG.1000.4; addresses and sizes from memory). */
public enum EtherCatRegister {
    STATION_ADDRESS(0x0010, 2),
    /** Which state is asked for; bit 4 acknowledges an error. */
    STATE_ASKED(0x0120, 2),
    /** State reached in bits 0 to 3, error in bit 4. */
    STATE(0x0130, 2),
    INTERRUPT_MASK(0x0200, 2),
    RECEIVE_ERRORS(0x0300, 8),
    /** Who has the identity memory: 0 the master, 1 the station, bit 1 takes it by force. */
    MEMORY_OWNER(0x0500, 1),
    /** Order to the identity memory (2 bytes) and the word it is about (4 bytes). */
    MEMORY_ORDER(0x0502, 6),
    MEMORY_DATA(0x0508, 4),
    /** First of 16 mappings between the logical image and the memory, 16 bytes each. */
    MAPPINGS(0x0600, 16),
    /** First of 16 sync managers, 8 bytes each. */
    SYNC_MANAGERS(0x0800, 8),
    SYSTEM_TIME(0x0910, 8),
    TIME_OFFSET(0x0920, 8),
    SPEED_START(0x0930, 2),
    FILTER_DEPTH(0x0934, 2),
    /** Who controls the cyclic unit (1 byte) and what is active: the assign-activate word of the description. */
    SYNC_ACTIVATION(0x0980, 2),
    /** Cycle of SYNC0 and of SYNC1, ns, 4 bytes each. */
    SYNC_CYCLES(0x09A0, 8);

    private final int address;
    private final int bytes;

    EtherCatRegister(int address, int bytes) {
        this.address = address;
        this.bytes = bytes;
    }

    public int address() {
        return address;
    }

    /** Size, or that of one of several. */
    public int bytes() {
        return bytes;
    }
}
