package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;

/**
 * Safely limited speed, and the distance that safe direction allows the wrong way.
 *
 * @param delay          from the request until the limit counts, ms, 0 or more
 * @param limit          units/s, above 0
 * @param filterDistance way that may be gone above the limit, or in the wrong direction, before that counts, units, 0 or more
 */
@RecordBuilder
public record SpeedRules(double delay, double limit, double filterDistance) implements SpeedRulesBuilder.With {
}
