package rueda.plc.syntax;

import java.util.List;

/** A type as written behind the colon of a declaration. */
public sealed interface TypeSyntax {

    Place place();

    /** A type by its name. @param length of STRING[n], or null */
    record Named(Place place, String name, ExpressionSyntax length) implements TypeSyntax {
    }

    /** INT (1..10): only a part of the values. */
    record Subrange(Place place, Named base, ExpressionSyntax low, ExpressionSyntax high) implements TypeSyntax {
    }

    /** ARRAY [1..5, 0..2] OF INT. */
    record ArrayOf(Place place, List<Range> ranges, TypeSyntax element) implements TypeSyntax {
    }

    /** Bounds of one dimension, both null for ARRAY [*]. */
    record Range(Place place, ExpressionSyntax low, ExpressionSyntax high) {
        public boolean open() {
            return low == null;
        }
    }

    /** STRUCT … END_STRUCT. */
    record Struct(Place place, List<UnitSyntax.Declaration> members) implements TypeSyntax {
    }

    /** INT (Red := 1, Green). @param base or null */
    record Enumeration(Place place, Named base, List<Value> values) implements TypeSyntax {
    }

    /** @param value or null for one more than the value before */
    record Value(Place place, String name, ExpressionSyntax value) {
    }

    /** REF_TO INT. */
    record ReferenceTo(Place place, TypeSyntax target) implements TypeSyntax {
    }
}
