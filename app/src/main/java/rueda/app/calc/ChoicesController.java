package rueda.app.calc;

import io.swagger.v3.oas.annotations.Operation;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import rueda.bench.NetworkScan;
import rueda.bench.StandChange;
import rueda.bus.WireOrder;
import rueda.drive.ParameterGroup;
import rueda.drive.PowerState;
import rueda.format.recording.RecordingLayout;
import rueda.guard.GuardPhase;
import rueda.machine.Axis;
import rueda.machine.AxisGuard;
import rueda.machine.Circumstance;
import rueda.machine.Cue;
import rueda.machine.Encoder;
import rueda.machine.Expectation;
import rueda.machine.Feed;
import rueda.machine.FollowWatch;
import rueda.machine.Following;
import rueda.machine.LoadEncoder;
import rueda.machine.MasterEncoder;
import rueda.machine.MoveEntry;
import rueda.machine.MoveList;
import rueda.machine.Plc;
import rueda.machine.Plan;
import rueda.machine.Protection;
import rueda.machine.SafetyFunction;
import rueda.machine.ScriptStep;
import rueda.machine.SentenceSlots;
import rueda.machine.Station;
import rueda.machine.StationRules;
import rueda.machine.StopRules;
import rueda.machine.Terminal;
import rueda.machine.Mistake;
import rueda.plcopen.AxisState;
import rueda.proof.learn.Unknown;
import rueda.quantity.UserUnit;

/** What can be chosen where, in words: lists that the core has, for whoever shows them. They are the same as long as the server runs. */
@RestController
@RequestMapping("/api/calc")
class ChoicesController {

    /** @param code as it stands in a document or a question */
    record Choice(String code, String words) {
    }

    /**
     * @param amount   what its amount is called, empty without
     * @param amountIs what its amount is
     * @param toothed  it has teeth that are counted
     * @param linear   the load moves along a line
     * @param units    of its amount
     */
    record FeedChoice(String code, String words, String amount, String amountIs, boolean toothed, boolean linear, List<String> units) {
    }

    /** @param functions that can stand at such a terminal  @param digital its level is high or low */
    record TerminalChoice(String kind, boolean digital, List<Choice> functions) {
    }

    /** @param slots of the sentence that this kind of entry uses, by their names in the document */
    record MoveKindChoice(String code, String words, List<String> slots) {
    }

    /**
     * What the sentences of a move list are made of.
     *
     * @param kinds      of entries
     * @param ends       of entries
     * @param ways       of an endless axis to a position
     * @param inputs     that can carry a cue, and none
     * @param starters   kinds of starters
     * @param exceptions what an exception does
     * @param passings   directions in which a zone counts
     * @param commanders who can command an axis
     * @param outputs    list outputs, by number
     */
    record MoveChoices(List<MoveKindChoice> kinds, List<Choice> ends, List<Choice> ways, List<Choice> inputs, List<Choice> edges, List<Choice> taken, List<Choice> starters, List<Choice> exceptions, List<Choice> passings,
                       List<Choice> commanders, int outputs, int mostEntries, int mostRules, int mostZones) {
    }

    /**
     * @param signals  of an encoder that is followed
     * @param sources  what a master is
     * @param locks    how a follower is tied
     * @param meanings what that means, by the same codes
     * @param releases what it does when it is let go
     * @param forms    how a ratio is given
     * @param reactions what a follower does when something that it watches comes about
     */
    record FollowChoices(List<Choice> signals, List<Choice> sources, List<Choice> locks, List<Choice> meanings, List<Choice> releases, List<Choice> forms, List<Choice> reactions) {
    }

    /** A sentence with slots in braces. @param units of the numbers in its slots, by name; {@code u} stands for the user unit of the axis, {@code v} for that of the other one; none where it is that of a signal */
    record SentenceChoice(String code, String words, String pattern, Map<String, String> units) {
    }

    /** @param unit {@code u} stands for the user unit of the axis */
    record QuantityChoice(String code, String words, String unit) {
    }

    /** @param linear unit of its amount along a line  @param turning that of one that turns  @param endings for how long it can go on, none where it is over at once */
    record HappeningChoice(String code, String words, String pattern, String linear, String turning, List<String> endings) {
    }

    /** @param unit {@code u} stands for the user unit of the axis  @param ofAxis it is one of an axis */
    record CircumstanceChoice(String code, String words, String unit, boolean ofAxis) {
    }

    /**
     * What proofs are made of.
     *
     * @param spans    while what something has to be so
     * @param alignments how a recording is laid over a run
     * @param ends     how an axis stands at the end
     * @param starts   when a sentence of a script begins
     * @param happens  what happens then
     * @param endings  for how long
     * @param varied   circumstances under which it is repeated
     * @param plans    how
     */
    record ProofChoices(List<SentenceChoice> expectations, List<QuantityChoice> quantities, List<SentenceChoice> spans, List<SentenceChoice> alignments, List<Choice> ends, List<SentenceChoice> starts, List<HappeningChoice> happens, List<SentenceChoice> endings, List<CircumstanceChoice> varied, List<Choice> plans) {
    }

    /** How a recording is read. @param times forms of the time  @param unknowns what can be learned from it */
    record RecordingChoices(List<Choice> encodings, List<Choice> separators, List<Choice> times, List<Choice> unknowns) {
    }

    /** A safety function. @param category stop category by IEC 60204-1, −1 for what stops nothing  @param endsMotion it brings a moving axis to rest  @param rules entry of the guard that says how it is watched */
    record SafetyChoice(String code, String words, int category, boolean endsMotion, String rules) {
    }

    /**
     * What guards are made of.
     *
     * @param functions   that can be asked for
     * @param watches     what is watched while an axis slows down
     * @param restarts    how motion is allowed again
     * @param slowings    who slows it down
     * @param protections what one comes past
     * @param phases      of a stop
     * @param steps       the cycle of a guard is a multiple of this, ms
     * @param note        what whoever looks at a simulated guard must know
     */
    record GuardChoices(List<SafetyChoice> functions, List<Choice> watches, List<Choice> restarts, List<Choice> slowings, List<ProtectionChoice> protections, List<Choice> phases, double steps, String note) {
    }

    /** @param uses entries that it uses */
    record ProtectionChoice(String code, String words, List<String> uses) {
    }

    /** Most tasks of a controller, and the priority that goes last. */
    record ProgramChoices(int mostTasks, int lowestPriority) {
    }

    /** A state of an axis, PLCopen Motion Control part 1. @param next states that can follow it */
    record MotionStateChoice(String code, String words, List<String> next) {
    }

    /**
     * @param tagTypes    elementary types that a tag can have, IEC 61131-3
     * @param units       usual user units; others can be named
     * @param powerStates of a drive, IEC 61800-7-201
     * @param mistakes    that can be made on the bench
     * @param standChanges how a device on the bench can differ from the plan
     * @param differences what a scan of the network can find
     * @param resolutions how a difference can be resolved
     * @param acts        when a written parameter begins to act
     * @param wireOrders  of the bytes of a value
     * @param canOpenRates bit rates of CiA 301, kbit/s
     */
    record Choices(List<String> tagTypes, List<String> units, List<Choice> axisKinds, List<Choice> encoderKinds, List<Choice> loadEncoderUses, List<FeedChoice> feeds, List<TerminalChoice> terminals,
                   List<Choice> powerStates, List<Choice> mistakes, List<Choice> standChanges, List<Choice> differences, List<Choice> resolutions, List<Choice> transitions, List<Choice> acts,
                   ProofChoices proof, List<Choice> wireOrders, List<Integer> canOpenRates, MoveChoices moves, FollowChoices follow, List<MotionStateChoice> motionStates, ProgramChoices program, RecordingChoices recording, GuardChoices guard) {
    }

    private static final Choices ALL = new Choices(
            StationRules.TAG_TYPES, UserUnit.USUAL,
            of(Axis.Kind.values(), Axis.Kind::words), of(Encoder.Kind.values(), Encoder.Kind::words), of(LoadEncoder.Use.values(), LoadEncoder.Use::words),
            Arrays.stream(Feed.Kind.values()).map(f -> new FeedChoice(f.name(), f.words(), f.amount(), f.amountIs(), f.toothed(), f.linear(), f.linear() ? UserUnit.LENGTHS : UserUnit.USUAL)).toList(),
            Arrays.stream(Terminal.Kind.values()).map(k -> new TerminalChoice(k.name(), k.digitalInput(), of(Arrays.stream(Terminal.Function.values()).filter(f -> f.fits(k)).toArray(Terminal.Function[]::new), Terminal.Function::words))).toList(),
            of(PowerState.values(), PowerState::words), of(Mistake.values(), Mistake::words), of(StandChange.values(), StandChange::words), of(NetworkScan.Kind.values(), NetworkScan.Kind::words),
            of(NetworkScan.Resolution.values(), NetworkScan.Resolution::words), of(Station.Transition.values(), Station.Transition::words), of(ParameterGroup.Acts.values(), ParameterGroup.Acts::words),
            proofs(), of(WireOrder.values(), WireOrder::words), StationRules.CANOPEN_RATES,
            new MoveChoices(Arrays.stream(MoveEntry.Kind.values()).map(k -> new MoveKindChoice(k.name(), k.words(), k.slots())).toList(), of(MoveEntry.End.values(), MoveEntry.End::words), of(MoveEntry.Way.values(), MoveEntry.Way::words),
                    Stream.concat(Stream.of(new Choice(Terminal.Function.NONE.name(), "no cue")), Cue.INPUTS.stream().map(f -> new Choice(f.name(), f.words()))).toList(), of(Cue.Edge.values(), Cue.Edge::words), of(Cue.Taken.values(), Cue.Taken::words),
                    of(MoveList.By.values(), MoveList.By::words), of(MoveList.Does.values(), MoveList.Does::words), of(MoveList.Passing.values(), MoveList.Passing::words), of(Axis.Commander.values(), Axis.Commander::words),
                    MoveEntry.OUTPUTS, MoveList.MOST_ENTRIES, MoveList.MOST_RULES, MoveList.MOST_ZONES),
            new FollowChoices(of(MasterEncoder.Signal.values(), MasterEncoder.Signal::words), of(Following.Source.values(), Following.Source::words), of(Following.Lock.values(), Following.Lock::words), of(Following.Lock.values(), Following.Lock::meaning), of(Following.Release.values(), Following.Release::words), of(Following.Form.values(), Following.Form::words),
                    of(FollowWatch.Reaction.values(), FollowWatch.Reaction::words)),
            Arrays.stream(AxisState.values()).map(s -> new MotionStateChoice(s.name(), s.words(), s.next().stream().map(Enum::name).toList())).toList(), new ProgramChoices(Plc.MOST_TASKS, Plc.Task.LOWEST_PRIORITY),
            new RecordingChoices(of(RecordingLayout.Encoding.values(), RecordingLayout.Encoding::words), of(RecordingLayout.Separator.values(), RecordingLayout.Separator::words), of(RecordingLayout.TimeSource.Form.values(), RecordingLayout.TimeSource.Form::words), of(Unknown.values(), Unknown::words)),
            new GuardChoices(Arrays.stream(SafetyFunction.values()).map(f -> new SafetyChoice(f.name(), f.words(), f.category(), f.endsMotion(), AxisGuard.entry(f))).toList(), of(StopRules.Watch.values(), StopRules.Watch::words), of(StopRules.Restart.values(), StopRules.Restart::words),
                    of(AxisGuard.Slowing.values(), AxisGuard.Slowing::words), Arrays.stream(Protection.Kind.values()).map(k -> new ProtectionChoice(k.name(), k.words(), k.uses())).toList(), of(GuardPhase.values(), GuardPhase::words), AxisGuard.CYCLE_STEP, AxisGuard.NOTE));

    private static ProofChoices proofs() {
        return new ProofChoices(Arrays.stream(Expectation.Kind.values()).map(k -> new SentenceChoice(k.name(), k.words(), k.pattern(), units(k.slots(), k::unit))).toList(),
                Arrays.stream(Expectation.Quantity.values()).map(q -> new QuantityChoice(q.name(), q.words(), q.unit())).toList(),
                Arrays.stream(Expectation.Span.values()).map(s -> timed(s.name(), s.words(), s.pattern())).toList(), Arrays.stream(Expectation.Alignment.values()).map(a -> timed(a.name(), a.words(), a.pattern())).toList(), of(Expectation.End.values(), Expectation.End::words),
                Arrays.stream(ScriptStep.Start.values()).map(s -> timed(s.name(), s.words(), s.pattern())).toList(),
                Arrays.stream(ScriptStep.Does.values()).map(d -> new HappeningChoice(d.name(), d.words(), d.pattern(), d.unit(true), d.unit(false), d.endings().stream().map(Enum::name).toList())).toList(),
                Arrays.stream(ScriptStep.Ending.values()).map(e -> timed(e.name(), e.words(), e.pattern())).toList(),
                Arrays.stream(Circumstance.values()).map(c -> new CircumstanceChoice(c.name(), c.words(), c.unit(), c.ofAxis())).toList(), of(Plan.Kind.values(), Plan.Kind::words));
    }

    /** Its numbers are seconds. */
    private static SentenceChoice timed(String code, String words, String pattern) {
        return new SentenceChoice(code, words, pattern, units(SentenceSlots.of(pattern), slot -> List.of("time", "lasts", "within").contains(slot) ? "s" : ""));
    }

    private static Map<String, String> units(List<String> slots, UnaryOperator<String> unit) {
        return slots.stream().filter(slot -> !unit.apply(slot).isEmpty()).collect(Collectors.toMap(Function.identity(), unit));
    }

    private static <E extends Enum<E>> List<Choice> of(E[] values, Function<E, String> words) {
        return Arrays.stream(values).map(v -> new Choice(v.name(), words.apply(v))).toList();
    }

    @Operation(summary = "What can be chosen where, in words")
    @GetMapping("/choices")
    Choices choices() {
        return ALL;
    }
}
