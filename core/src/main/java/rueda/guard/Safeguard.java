package rueda.guard;

import rueda.machine.Protection;

/** What stands between a person and the danger, as ISO 13855 tells them apart. Lengths in mm. */
public sealed interface Safeguard {

    /** What a protection of the document is here; null for nothing that one comes past. */
    static Safeguard of(Protection protection) {
        return switch (protection.kind()) {
            case NONE -> null;
            case LIGHT_CURTAIN -> new LightCurtain(protection.resolution());
            case SEPARATE_BEAMS -> new SeparateBeams();
            case SINGLE_BEAM -> new SingleBeam();
            case PARALLEL_FIELD -> new ParallelField(protection.height(), protection.resolution());
            case MAT -> new Mat(protection.height());
            case TWO_HAND_CONTROL -> new TwoHandControl(protection.shrouded());
            case INTERLOCKED_GUARD -> new InterlockedGuard(protection.reach());
        };
    }

    /** How far from the danger it must stand. @param seconds T, from the request until the danger is over, s, above 0 */
    SafeDistance distance(double seconds);

    /** A curtain that is approached at a right angle. @param resolution smallest thing it sees, d, mm, 0 to 70 */
    record LightCurtain(double resolution) implements Safeguard {
        public LightCurtain {
            within("resolution", resolution, 0, 70);
        }

        @Override
        public SafeDistance distance(double seconds) {
            return resolution <= 40 ? SafeDistance.ofHand(resolution, seconds) : SafeDistance.ofBody(seconds, 850, 0, "6.2.3.2");
        }
    }

    /** Two to four beams, approached at a right angle, that see a body and not a hand. */
    record SeparateBeams() implements Safeguard {
        @Override
        public SafeDistance distance(double seconds) {
            return SafeDistance.ofBody(seconds, 850, 0, "6.2.4");
        }
    }

    /** One beam, approached at a right angle. */
    record SingleBeam() implements Safeguard {
        @Override
        public SafeDistance distance(double seconds) {
            return SafeDistance.ofBody(seconds, 1200, 0, "6.2.5");
        }
    }

    /** A field along which one walks. @param height over the floor, H, mm, 0 to 1000  @param resolution d, mm; the height must be at least 15·(d − 50 mm) */
    record ParallelField(double height, double resolution) implements Safeguard {
        public ParallelField {
            within("height", height, 0, 1000);
            within("resolution", resolution, 0, height / 15 + 50);
        }

        @Override
        public SafeDistance distance(double seconds) {
            return SafeDistance.ofBody(seconds, Math.max(1200 - 0.4 * height, 850), 0, "6.3");
        }
    }

    /** A mat that one steps on. @param height of the step it lies on, mm, 0 to 1000; 0 for the floor */
    record Mat(double height) implements Safeguard {
        public Mat {
            within("height", height, 0, 1000);
        }

        @Override
        public SafeDistance distance(double seconds) {
            return SafeDistance.ofBody(seconds, 1200 - 0.4 * height, 0, "7");
        }
    }

    /** Both hands on it. @param shrouded hands cannot reach past it while it is pressed */
    record TwoHandControl(boolean shrouded) implements Safeguard {
        @Override
        public SafeDistance distance(double seconds) {
            return SafeDistance.ofBody(seconds, shrouded ? 0 : 250, shrouded ? SafeDistance.LEAST : 0, "8");
        }
    }

    /** A door without a lock. @param reach how far one reaches through before it has opened so far that the stop is asked for, mm, 0 to 850 (ISO 13857) */
    record InterlockedGuard(double reach) implements Safeguard {
        public InterlockedGuard {
            within("reach", reach, 0, 850);
        }

        @Override
        public SafeDistance distance(double seconds) {
            return SafeDistance.ofBody(seconds, reach, 0, "9");
        }
    }

    private static void within(String what, double value, double least, double most) {
        if (!(value >= least && value <= most)) {
            throw new IllegalArgumentException("The " + what + " is " + value + " mm; allowed are " + least + " to " + most + " mm.");
        }
    }
}
