package rueda.trial;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.math.BigDecimal;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.Encoder;
import rueda.machine.Feed;
import rueda.machine.Machine;
import rueda.machine.Train;
import rueda.machine.Travel;
import rueda.machine.Unit;
import rueda.machine.Mistake;

class HandTurnTest {

    private static final Machine DEMO = DemoMachine.create();

    @Test
    void oneTurnOfEveryAxisMakesItsCounts() {
        for (int i = 0; i < DEMO.axes().size(); i++) {
            Axis axis = DEMO.axes().get(i);
            HandTurn.Turned turned = HandTurn.run(DEMO, i, Set.of());
            assertThat(turned.agrees(axis.scale().unitsPerCount().toDouble() + 1.0 / axis.scale().wireUnitsPerUnit())).as(axis.name() + " " + turned).isTrue();
        }
    }

    /** Common practice, no source: 524 288 counts to be 10 000 units per turn; one turn by hand reads 10 000 (±1). */
    @Test
    void tenThousandUnitsATurn() {
        Axis axis = DemoMachine.lift().withUnit(new Unit("units", 0)).withEncoder(Encoder.absolute(19, 0))
                .withTrain(new Train(List.of(), new Feed(Feed.Kind.FEEDER, 1, new BigDecimal("10000"), "units"))).withTravel(new Travel(1e6, 1e3, 9.9e5, 0, 0, 5e5));
        HandTurn.Turned turned = HandTurn.run(DEMO.withAxis(0, axis), 0, Set.of());
        assertThat(turned.counted()).isBetween(524_287L, 524_289L);
        assertThat(turned.moved()).isCloseTo(10_000, within(1.0));
    }

    @Test
    void aReversedEncoderCountsBackward() {
        assertThat(HandTurn.run(DEMO, 0, Set.of(Mistake.ENCODER_REVERSED)).counted()).isCloseTo(-524_288, within(1L));
    }
}
