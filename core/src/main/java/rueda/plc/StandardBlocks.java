package rueda.plc;

import java.util.ArrayList;
import java.util.List;
import rueda.plc.run.Frame;
import rueda.plc.run.FunctionBlock;
import rueda.plc.type.Type;

/**
 * Function blocks of IEC 61131-3, 6.6.3.5 (tables of bistable elements, edge detection, counters, timers; from memory): SR, RS, R_TRIG, F_TRIG, CTU,
 * CTD, CTUD for INT and, by their names, for DINT, LINT, UDINT and ULINT, TON, TOF, TP for TIME and LTIME, and RTC.
 */
public final class StandardBlocks {

    private StandardBlocks() {
    }

    public static final List<FunctionBlock.Kind> ALL = all();

    private static final int IN = 0;
    private static final int PT = 1;
    private static final int Q = 2;
    private static final int ET = 3;

    private static List<FunctionBlock.Kind> all() {
        List<FunctionBlock.Kind> kinds = new ArrayList<>();
        for (Type time : List.of(Type.TIME, Type.LTIME)) {
            String behind = time == Type.TIME ? "" : "_LTIME";
            kinds.add(timer("TON" + behind, time, name -> new OnDelay()));
            kinds.add(timer("TOF" + behind, time, name -> new OffDelay()));
            kinds.add(timer("TP" + behind, time, name -> new Pulse()));
        }
        kinds.add(timer("TON_TIME", Type.TIME, name -> new OnDelay()));
        kinds.add(timer("TOF_TIME", Type.TIME, name -> new OffDelay()));
        kinds.add(timer("TP_TIME", Type.TIME, name -> new Pulse()));
        kinds.add(edge("R_TRIG", name -> new Edge(1)));
        kinds.add(edge("F_TRIG", name -> new Edge(0)));
        kinds.add(new FunctionBlock.Kind("SR", List.of(in("S1"), in("R"), out("Q1", Type.BOOL)), name -> StandardBlocks::setDominant));
        kinds.add(new FunctionBlock.Kind("RS", List.of(in("S"), in("R1"), out("Q1", Type.BOOL)), name -> StandardBlocks::resetDominant));
        for (Type type : List.of(Type.INT, Type.DINT, Type.LINT, Type.UDINT, Type.ULINT)) {
            String behind = type == Type.INT ? "" : "_" + type;
            FunctionBlock.Pin limit = FunctionBlock.Pin.in("PV", type);
            kinds.add(new FunctionBlock.Kind("CTU" + behind, List.of(in("CU"), in("R"), limit, out("Q", Type.BOOL), out("CV", type)), name -> new Up(type)));
            kinds.add(new FunctionBlock.Kind("CTD" + behind, List.of(in("CD"), in("LD"), limit, out("Q", Type.BOOL), out("CV", type)), name -> new Down(type)));
            kinds.add(new FunctionBlock.Kind("CTUD" + behind, List.of(in("CU"), in("CD"), in("R"), in("LD"), limit, out("QU", Type.BOOL), out("QD", Type.BOOL), out("CV", type)), name -> new UpAndDown(type)));
        }
        kinds.add(new FunctionBlock.Kind("RTC", List.of(in("IN"), FunctionBlock.Pin.in("PDT", Type.DT), out("Q", Type.BOOL), out("CDT", Type.DT)), name -> new Clock()));
        return List.copyOf(kinds);
    }

    private static FunctionBlock.Pin in(String name) {
        return FunctionBlock.Pin.in(name, Type.BOOL);
    }

    private static FunctionBlock.Pin out(String name, Type type) {
        return FunctionBlock.Pin.out(name, type);
    }

    private static FunctionBlock.Kind timer(String name, Type time, FunctionBlock.Maker maker) {
        return new FunctionBlock.Kind(name, List.of(in("IN"), FunctionBlock.Pin.in("PT", time), out("Q", Type.BOOL), out("ET", time)), maker);
    }

    private static FunctionBlock.Kind edge(String name, FunctionBlock.Maker maker) {
        return new FunctionBlock.Kind(name, List.of(in("CLK"), out("Q", Type.BOOL)), maker);
    }

    // ---- bistable elements

    /** {@code Q1 := S1 OR (NOT R AND Q1)}. */
    private static void setDominant(Frame frame, int base) {
        long[] m = frame.memory;
        m[base + 2] = m[base] != 0 || m[base + 1] == 0 && m[base + 2] != 0 ? 1 : 0;
    }

    /** {@code Q1 := NOT R1 AND (S OR Q1)}. */
    private static void resetDominant(Frame frame, int base) {
        long[] m = frame.memory;
        m[base + 2] = m[base + 1] == 0 && (m[base] != 0 || m[base + 2] != 0) ? 1 : 0;
    }

    // ---- counters

    /** Whole numbers of a type in their order, also those without sign. */
    private static final class Range {
        private final boolean unsigned;
        private final long lowest;
        private final long highest;

        Range(Type type) {
            unsigned = type.isUnsigned64();
            lowest = type.lowest().longValue();
            highest = type.highest().longValue();
        }

        int compare(long a, long b) {
            return unsigned ? Long.compareUnsigned(a, b) : Long.compare(a, b);
        }

        /** One more, but no more than the type holds. */
        long above(long value) {
            return compare(value, highest) < 0 ? value + 1 : value;
        }

        /** One less, but no less than the type holds. */
        long below(long value) {
            return compare(value, lowest) > 0 ? value - 1 : value;
        }
    }

    /** Counts rising edges of CU up to the most that the type holds; R puts it to 0. */
    private static final class Up implements FunctionBlock {
        private final Range range;
        private boolean before;

        Up(Type type) {
            range = new Range(type);
        }

        @Override
        public void call(Frame frame, int base) {
            long[] m = frame.memory;
            boolean now = m[base] != 0;
            if (m[base + 1] != 0) {
                m[base + 4] = 0;
            } else if (now && !before) {
                m[base + 4] = range.above(m[base + 4]);
            }
            before = now;
            m[base + 3] = range.compare(m[base + 4], m[base + 2]) >= 0 ? 1 : 0;
        }
    }

    /** Counts rising edges of CD down to the least that the type holds; LD puts it to PV. */
    private static final class Down implements FunctionBlock {
        private final Range range;
        private boolean before;

        Down(Type type) {
            range = new Range(type);
        }

        @Override
        public void call(Frame frame, int base) {
            long[] m = frame.memory;
            boolean now = m[base] != 0;
            if (m[base + 1] != 0) {
                m[base + 4] = m[base + 2];
            } else if (now && !before) {
                m[base + 4] = range.below(m[base + 4]);
            }
            before = now;
            m[base + 3] = range.compare(m[base + 4], 0) <= 0 ? 1 : 0;
        }
    }

    /** Both; R goes before LD, and edges of both at once cancel out. */
    private static final class UpAndDown implements FunctionBlock {
        private final Range range;
        private boolean upBefore;
        private boolean downBefore;

        UpAndDown(Type type) {
            range = new Range(type);
        }

        @Override
        public void call(Frame frame, int base) {
            long[] m = frame.memory;
            boolean up = m[base] != 0 && !upBefore;
            boolean down = m[base + 1] != 0 && !downBefore;
            upBefore = m[base] != 0;
            downBefore = m[base + 1] != 0;
            int count = base + 7;
            if (m[base + 2] != 0) {
                m[count] = 0;
            } else if (m[base + 3] != 0) {
                m[count] = m[base + 4];
            } else if (up != down) {
                m[count] = up ? range.above(m[count]) : range.below(m[count]);
            }
            m[base + 5] = range.compare(m[count], m[base + 4]) >= 0 ? 1 : 0;
            m[base + 6] = range.compare(m[count], 0) <= 0 ? 1 : 0;
        }
    }

    // ---- timers

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

    /** A clock that is set to PDT by the rising edge of IN and runs while IN is true. */
    private static final class Clock implements FunctionBlock {
        private boolean before;
        private long from;
        private long since;

        @Override
        public void call(Frame frame, int base) {
            long[] m = frame.memory;
            boolean in = m[base] != 0;
            if (in && !before) {
                from = m[base + 1];
                since = frame.now;
            }
            before = in;
            m[base + 2] = in ? 1 : 0;
            if (in) {
                m[base + 3] = from + frame.now - since;
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
