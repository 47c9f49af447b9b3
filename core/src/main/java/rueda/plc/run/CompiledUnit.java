package rueda.plc.run;

/** Compiled code of a program organisation unit; made by the generator for one frame, in which all values lie. */
public interface CompiledUnit {

    /** Runs the body once. @param base first cell of the instance */
    void run(int base);

    /** Works out the first values that are no constants. @param base first cell of the instance */
    void begin(int base);
}
