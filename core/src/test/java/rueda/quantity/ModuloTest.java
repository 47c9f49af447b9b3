package rueda.quantity;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import net.jqwik.api.Example;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.LongRange;

class ModuloTest {

    /** The Java library's floorMod is the reference. */
    @Property(tries = 5000)
    void isFloorMod(@ForAll long value, @ForAll @LongRange(min = 1, max = 1L << 40) long modulo) {
        assertThat(new Modulo(modulo).of(value)).isEqualTo(Math.floorMod(value, modulo));
        assertThat(new Modulo(modulo).of(value >> 12)).isEqualTo(Math.floorMod(value >> 12, modulo));
    }

    /** Multiples of the modulo and their neighbours, where a reciprocal is most easily wrong. */
    @Property(tries = 5000)
    void isFloorModAroundMultiples(@ForAll @LongRange(min = -1_000_000_000, max = 1_000_000_000) long turns, @ForAll @LongRange(min = 1, max = 2_000_000) long modulo) {
        for (long value = turns * modulo - 1; value <= turns * modulo + 1; value++) {
            assertThat(new Modulo(modulo).of(value)).isEqualTo(Math.floorMod(value, modulo));
        }
    }

    @Example
    void aModuloIsPositive() {
        assertThatThrownBy(() -> new Modulo(0)).isInstanceOf(IllegalArgumentException.class);
    }
}
