package rueda.plc;

import java.util.List;

/** Function blocks of IEC 61131-3: TON, TOF, TP, R_TRIG, F_TRIG. */
public final class StandardBlocks {

    private StandardBlocks() {
    }

    public static final List<FunctionBlock.Kind> ALL = List.of(
            timer("TON", name -> new OnDelay()), timer("TOF", name -> new OffDelay()), timer("TP", name -> new Pulse()),
            edge("R_TRIG", name -> new Edge(1)), edge("F_TRIG", name -> new Edge(0)));

    private static final int IN = 0;
    private static final int PT = 1;
    private static final int Q = 2;
    private static final int ET = 3;

    private static FunctionBlock.Kind timer(String name, FunctionBlock.Maker maker) {
        return new FunctionBlock.Kind(name, List.of(FunctionBlock.Pin.in("IN", Type.BOOL), FunctionBlock.Pin.in("PT", Type.TIME),
                FunctionBlock.Pin.out("Q", Type.BOOL), FunctionBlock.Pin.out("ET", Type.TIME)), maker);
    }

    private static FunctionBlock.Kind edge(String name, FunctionBlock.Maker maker) {
        return new FunctionBlock.Kind(name, List.of(FunctionBlock.Pin.in("CLK", Type.BOOL), FunctionBlock.Pin.out("Q", Type.BOOL)), maker);
    }

    /** On-delay: Q turns true PT after IN, false with IN. */
    private static final class OnDelay implements FunctionBlock {
        private long since = -1;

        @Override
        public void call(Frame frame, int base) {
            long[] m = frame.memory;
            if (m[base + IN] == 0) {
                since = -1;
                m[base + Q] = 0;
                m[base + ET] = 0;
                return;
            }
            if (since < 0) {
                since = frame.now;
            }
            m[base + ET] = Math.min(frame.now - since, m[base + PT]);
            m[base + Q] = m[base + ET] >= m[base + PT] ? 1 : 0;
        }
    }

    /** Off-delay: Q turns true with IN, false PT after it. */
    private static final class OffDelay implements FunctionBlock {
        private long since = -1;

        @Override
        public void call(Frame frame, int base) {
            long[] m = frame.memory;
            if (m[base + IN] != 0) {
                since = -1;
                m[base + Q] = 1;
                m[base + ET] = 0;
            } else if (m[base + Q] != 0) {
                if (since < 0) {
                    since = frame.now;
                }
                m[base + ET] = Math.min(frame.now - since, m[base + PT]);
                m[base + Q] = m[base + ET] < m[base + PT] ? 1 : 0;
            }
        }
    }

    /** Pulse: Q is true for PT after a rising edge of IN. */
    private static final class Pulse implements FunctionBlock {
        private long since = -1;
        private boolean inBefore;

        @Override
        public void call(Frame frame, int base) {
            long[] m = frame.memory;
            boolean in = m[base + IN] != 0;
            // A pulse that has run out by now is over: an edge in this very call starts the next one.
            if (in && !inBefore && (since < 0 || frame.now - since >= m[base + PT])) {
                since = frame.now;
            }
            inBefore = in;
            if (since < 0) {
                return;
            }
            m[base + ET] = Math.min(frame.now - since, m[base + PT]);
            boolean running = m[base + ET] < m[base + PT];
            m[base + Q] = running ? 1 : 0;
            if (!running && !in) {
                since = -1;
                m[base + ET] = 0;
            }
        }
    }

    /**
     * Edge detection, IEC 61131-3 table 44 (from memory): R_TRIG is {@code Q := CLK AND NOT M; M := CLK}, F_TRIG is
     * {@code Q := NOT CLK AND NOT M; M := NOT CLK}, M FALSE at the start. F_TRIG therefore gives Q once when CLK is FALSE in its first call.
     */
    private static final class Edge implements FunctionBlock {
        private final long rising;
        private long before;

        Edge(long rising) {
            this.rising = rising;
            before = 1 - rising;
        }

        @Override
        public void call(Frame frame, int base) {
            long now = frame.memory[base];
            frame.memory[base + 1] = now == rising && before != now ? 1 : 0;
            before = now;
        }
    }
}
