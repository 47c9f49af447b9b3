package rueda.machine;

import java.util.List;
import rueda.machine.Expectation.End;
import rueda.machine.Expectation.Quantity;
import rueda.machine.ScriptStep.Does;
import rueda.machine.ScriptStep.Ending;

/** What is proven of the cheese-wheel cell. All but the first hold. */
final class DemoProofs {

    private static final String FETCH = "Fetching";
    private static final String CARE = "At the table";
    private static final String BAD_DAY = "On a bad day";
    /** The wheel has been cared for and put back, s. */
    private static final double WHOLE = 44;

    private DemoProofs() {
    }

    static List<Proof> all() {
        return List.of(fetch(), care(), order(), noSuchSlot(), apart(), heat(), stopped(), powerLost(), wireBreaks(), doorOpens());
    }

    /** Its loaded way back asks for more than the motor gives: the one that does not hold. */
    private static Proof fetch() {
        return new Proof("Fetch a wheel from slot 7", FETCH, 18, List.of(
                Expectation.arrives("Shuttle", 2100, 0.05, 3.6, "ToSlot.Execute", 0.3),
                Expectation.arrives("Shuttle", 300, 0.05, 3.6, "ToTable.Execute", 0.3),
                Expectation.bound("Shuttle", Quantity.SPEED, 920),
                Expectation.bound("Shuttle", Quantity.FOLLOWING_ERROR, 0.25),
                Expectation.noError("Shuttle")))
                .withPurpose("The farthest slot, there and back with a wheel on board, in time and on its path.")
                .withConditions(List.of(Condition.range(Circumstance.MASS, "Shuttle", 90, 190, 6), Condition.values(Circumstance.FRICTION, "Shuttle", 50.0, 200.0), Condition.values(Circumstance.CAM, "Shuttle", -2.0, 2.0)));
    }

    private static Proof care() {
        return new Proof("Turn, brush and salt", CARE, 36, List.of(
                Expectation.order("Care = 20", "Turn.Execute"),
                Expectation.count("Dose.Done", 1, 1),
                Expectation.time("Care = 10", "Care = 50", 8, 15),
                Expectation.bound("Brush", Quantity.PHASE, 3).whenever("Brushing.InGear"),
                Expectation.valueAt("Lift.position", 59.9, 60.1, "Turn.Execute"),
                Expectation.sentence("WHENEVER(Turn.Execute, Dose.Done, T#3s)")))
                .withPurpose("Set down before it turns, one dose of salt, the brush in step, and all of it in 15 s.")
                .withConditions(List.of(Condition.range(Circumstance.INERTIA, "Table", 4, 10, 4), Condition.values(Circumstance.FRICTION, "Table", 50.0, 150.0)));
    }

    private static Proof order() {
        return new Proof("The operator orders slot 3", FETCH, WHOLE + 12, List.of(
                Expectation.arrives("Shuttle", 900, 0.05, 3, "Order", 0.3),
                Expectation.time("Order", "Cycles = 2", 0, 9),
                Expectation.count("ToSlot.Execute", 3, 3),
                Expectation.noError("Shuttle")))
                .withPurpose("When the first wheel is back in its slot, the operator asks for another one by its number.")
                .withScript(List.of(ScriptStep.set("OrderedSlot", "3").when("Step = 80", 0.5).withEnding(Ending.ONCE), ScriptStep.set("Order", "TRUE").when("Step = 80", 1).lasting(0.2)));
    }

    private static Proof noSuchSlot() {
        return new Proof("A slot that does not exist", FETCH, WHOLE, List.of(
                Expectation.sentence("WHENEVER(Order, Refused, T#20ms)"),
                Expectation.between("Shuttle.position", 2099.9, 2100.1).whenever("Refused"),
                Expectation.ends("Shuttle", End.AT_REST)))
                .withPurpose("The operator mistypes: slot 12 is refused, and nothing moves.")
                .withScript(List.of(ScriptStep.set("OrderedSlot", "12").when("Step = 80", 0.5).withEnding(Ending.ONCE), ScriptStep.set("Order", "TRUE").when("Step = 80", 1).lasting(0.2)));
    }

    private static Proof apart() {
        return new Proof("Shuttle and Lift out of each other’s way", CARE, WHOLE, List.of(
                Expectation.neverBoth("Shuttle", 350, 2330, "Lift", 20, 550, 5),
                Expectation.between("Lift.position", 0, 700).whenever("Lift.referenced")))
                .withPurpose("While the Lift is down in the way of a wheel, the Shuttle stays at the table.")
                .withConditions(List.of(Condition.range(Circumstance.MASS, "Lift", 80, 160, 3)));
    }

    private static Proof heat() {
        return new Proof("No motor is overloaded", "Sizing", WHOLE, List.of(
                Expectation.rmsTorque("Shuttle", 80), Expectation.rmsTorque("Lift", 80), Expectation.rmsTorque("Table", 80), Expectation.rmsTorque("Brush", 80), Expectation.rmsTorque("Doser", 80),
                Expectation.peakTorque("Lift", 90), Expectation.taskTime(1)))
                .withPurpose("Over one wheel from its slot and back, with the load that it is sized for.");
    }

    private static Proof stopped() {
        return new Proof("Stop while the wheel travels", BAD_DAY, 16, List.of(
                Expectation.sentence("WHENEVER(Shuttle.speed < -500, Shuttle.standstill, T#2s)"),
                Expectation.between("Shuttle.position", -20, 2330).whenever("Shuttle.referenced"),
                Expectation.ends("Shuttle", End.AT_REST), Expectation.ends("Lift", End.AT_REST), Expectation.ends("Table", End.AT_REST)))
                .withPurpose("A person presses stop while the Shuttle is fast: everything comes to rest, and nothing meets its ends.")
                .withScript(List.of(ScriptStep.stop().when("Shuttle.speed < -500", 0.2)))
                .withConditions(List.of(Condition.moments(0, 0, 1.5, 16)));
    }

    private static Proof powerLost() {
        return new Proof("The Lift holds without power", BAD_DAY, 34, List.of(
                Expectation.between("Lift.speed", -50, 220).after(5, "Raise.Execute"),
                Expectation.sentence("WHENEVER(Raise.Execute, ALWAYS(ABS(Lift.speed) < 0.01, T#1s), T#4s)")))
                .withPurpose("Power goes while the Lift raises a wheel: its brake catches it.")
                .withScript(List.of(ScriptStep.powerLoss().when("Raise.Execute", 1)))
                .withConditions(List.of(Condition.moments(0, 0.1, 3, 30)));
    }

    private static Proof doorOpens() {
        return new Proof("The door opens while the wheel travels", BAD_DAY, 14, List.of(
                Expectation.sentence("WHENEVER(Shuttle.guard = DELAY, Shuttle.guard = STANDING, T#350ms)"),
                Expectation.sentence("ALWAYS(Shuttle.guard <> TRIPPED)"),
                Expectation.between("Shuttle.position", -20, 2330).whenever("Shuttle.referenced"),
                Expectation.ends("Shuttle", End.AT_REST)))
                .withPurpose("Somebody opens the door: safe stop 2 brings the Shuttle to rest inside of what its guard allows. Closed and acknowledged, nothing moves by itself.")
                .withScript(List.of(ScriptStep.ask(DemoMachine.DOOR).when("Shuttle.speed < -500", 0.2).lasting(1.5), ScriptStep.acknowledge().when("Shuttle.speed < -500", 2.5).lasting(0.2)))
                .withConditions(List.of(Condition.range(Circumstance.MASS, "Shuttle", 90, 190, 6), Condition.moments(0, 0, 1.5, 16)));
    }

    private static Proof wireBreaks() {
        return new Proof("A limit switch’s wire breaks", BAD_DAY, 12, List.of(
                Expectation.ends("Shuttle", End.AT_REST),
                Expectation.between("Shuttle.position", -20, 2330).whenever("Shuttle.referenced")))
                .withPurpose("End switches are normally closed: a broken wire stops the axis as a switch does.")
                .withScript(List.of(ScriptStep.breaks("Shuttle", Mistake.POSITIVE_LIMIT_BROKEN).when("Shuttle.speed > 500", 0)));
    }
}
