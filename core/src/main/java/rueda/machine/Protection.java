package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;

/**
 * What stands between a person and the danger where a request comes from, as ISO 13855 tells such things apart. Lengths in mm; entries that a kind does not use mean nothing.
 *
 * @param kind       what it is
 * @param resolution smallest thing that a curtain or field sees, 0 to {@link #COARSEST}
 * @param height     of a field over the floor, or of the step that a mat lies on, 0 to 1000
 * @param reach      how far one reaches through a guard before it asks, 0 to 850
 * @param shrouded   hands cannot reach past a two-hand control while it is pressed
 */
@RecordBuilder
public record Protection(Kind kind, double resolution, double height, double reach, boolean shrouded) implements ProtectionBuilder.With {

    public static final double COARSEST = 116;

    /** Nothing that one comes past: an emergency stop. */
    public static final Protection NONE = new Protection(Kind.NONE, 14, 0, 0, false);

    /** What it is. */
    public enum Kind {
        NONE("nothing"),
        LIGHT_CURTAIN("light curtain"),
        SEPARATE_BEAMS("two to four beams"),
        SINGLE_BEAM("one beam"),
        PARALLEL_FIELD("field along the floor"),
        MAT("mat"),
        TWO_HAND_CONTROL("two-hand control"),
        INTERLOCKED_GUARD("door without a lock");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        /** Entries that it uses, by their names. */
        public List<String> uses() {
            return switch (this) {
                case NONE, SEPARATE_BEAMS, SINGLE_BEAM -> List.of();
                case LIGHT_CURTAIN -> List.of("resolution");
                case PARALLEL_FIELD -> List.of("resolution", "height");
                case MAT -> List.of("height");
                case TWO_HAND_CONTROL -> List.of("shrouded");
                case INTERLOCKED_GUARD -> List.of("reach");
            };
        }
    }
}
