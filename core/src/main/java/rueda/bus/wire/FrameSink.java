package rueda.bus.wire;

import java.io.IOException;

/** Takes frames in the order of their times. */
@FunctionalInterface
public interface FrameSink {

    /** @param nanos when the first bit left, ns from the start of the bench  @param frame from its first byte, without check sequence */
    void frame(long nanos, byte[] frame) throws IOException;
}
