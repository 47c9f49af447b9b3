package rueda.app.live;

import java.nio.ByteBuffer;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Consumer;
import java.util.function.LongSupplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.web.socket.WebSocketSession;
import rueda.app.machine.MachineState;
import rueda.app.machine.MachineStore;
import rueda.app.web.Refusals.ControlHeld;
import rueda.app.web.Refusals.NotFound;
import rueda.app.web.Refusals.ProgramHasFaults;
import rueda.bench.Bench;
import rueda.bench.CalculationCancelled;
import rueda.bench.ValueChanges;
import rueda.drive.DeviceMemory;
import rueda.drive.ParameterGroup;
import rueda.machine.Axis;
import rueda.machine.Mistake;
import rueda.plc.CompiledProgram;
import rueda.plc.StructuredTextCompiler;
import rueda.plc.run.Tracer;
import rueda.quantity.InvalidEntry;

/**
 * The live bench of one machine: one at a time, stepped by a thread of its own, streamed at 30 Hz. Whatever goes wrong while stepping ends
 * that bench and nothing else: the thread goes on, the pages are told, and the next bench runs. A bench that no page listens to is held
 * after a minute, and put away with its thread after a quarter of an hour; what is wrong on the stand stays.
 *
 * <p>Orders come one after the other, under the lock of this session, and each is held against the control lease first: while somebody
 * moves axes by hand, whatever touches them needs the key of the lease, and a refused order has changed nothing. To stop all axes none is
 * needed. The database is not asked under the lock; a program is compiled under it only when the devices or what is wrong with them change.
 */
final class BenchSession {

    private static final Logger LOG = LoggerFactory.getLogger(BenchSession.class);
    private static final long FRAME_NANOS = 33_000_000;
    /** A bench runs on so long without a page that listens. */
    private static final long UNSEEN_NANOS = 60_000_000_000L;
    /** A bench that nobody looks at stands there so long. */
    private static final long KEPT_NANOS = 15 * UNSEEN_NANOS;

    private final LongSupplier nanos;
    private final long machineId;
    private final MachineStore machines;
    private final LiveStream stream;
    private final Stand stand;
    /** Steps the bench; null while there is none and there was none before. Guarded by this. */
    private Thread clock;
    private volatile LiveBench bench;
    private volatile Map<String, Set<Mistake>> condition = Map.of();
    private volatile boolean closing;
    /** When a page listened last, or somebody let it run. */
    private volatile long seenAt;
    /** Held while a state is taken and handed to the stream: no page hears an older state, or a bench that is gone, last. */
    private final Object publishing = new Object();
    /** Key of the columns that the pages have been told, 0 for none. Guarded by {@link #publishing}. */
    private int announced;
    /** What people look at in the program; it stays when the program is run anew. Guarded by this. */
    private ProgramWatch.Wanted wanted = ProgramWatch.Wanted.NOTHING;
    private final ControlLease lease = new ControlLease();

    BenchSession(long machineId, MachineStore machines, LiveStream stream, Stand stand) {
        this(machineId, machines, stream, stand, System::nanoTime);
    }

    /** @param nanos where the time comes from, ns */
    BenchSession(long machineId, MachineStore machines, LiveStream stream, Stand stand, LongSupplier nanos) {
        this.nanos = nanos;
        this.machineId = machineId;
        this.machines = machines;
        this.stand = stand;
        this.stream = stream;
        stream.onOpen(this::greet);
    }

    Stand stand() {
        return stand;
    }

    LiveStream stream() {
        return stream;
    }

    /** A page that joins hears of the bench, or that there is none: it may have seen one before it lost the connection. */
    private void greet() {
        synchronized (publishing) {
            announced = 0;
            if (publish() == null) {
                stream.send(new Off("off", condition));
            }
        }
    }

    /** A page says which axis it looks at. */
    void look(WebSocketSession page, String axis) {
        if (stream.look(page, axis)) {
            publish();
        }
    }

    /** Puts a bench in place of what is there. */
    private void put(LiveBench made) {
        LiveBench before = bench;
        made.want(wanted);
        bench = made;
        if (before != null) {
            before.close();
        }
        seenAt = nanos.getAsLong();
        if (clock == null && !closing) {
            clock = new Thread(this::tick, "bench");
            clock.setDaemon(true);
            clock.start();
        }
    }

    /** Makes a bench from the machine as it is saved and lets it run; refused while somebody moves axes by hand. */
    LiveBench.State start(LiveBench.Kind kind, String axis, boolean running) {
        return start(kind, axis, running, false);
    }

    /** @param retained values that the program keeps over a restart are taken from the bench that is there */
    LiveBench.State start(LiveBench.Kind kind, String axis, boolean running, boolean retained) {
        MachineState state = machines.get(machineId);
        if (kind == LiveBench.Kind.PROGRAM) {
            CompiledProgram program = StructuredTextCompiler.compile(StructuredTextCompiler.Text.of(state.document().plc()), Bench.environment(state.document()));
            if (!program.runs()) {
                throw new ProgramHasFaults(program.diagnostics().get(0).toString());
            }
        } else if (state.document().axis(axis).isEmpty()) {
            throw new NotFound("axis " + axis);
        }
        Map<String, Set<Mistake>> asked = condition;
        LiveBench made = new LiveBench(state.document(), state.revision(), kind, axis, asked);
        synchronized (this) {
            refuseWhileHeld();
            made = connected(asked == condition ? made : made.in(condition));
            if (retained && bench != null) {
                made.restore(bench);
            }
            made.running(running);
            put(made);
            return publish();
        }
    }

    LiveBench.State run(String key) {
        return with(key, b -> {
            seenAt = nanos.getAsLong();
            b.running(true);
        });
    }

    LiveBench.State hold(String key) {
        return with(key, b -> b.running(false));
    }

    LiveBench.State oneCycle(String key) {
        return with(key, LiveBench::oneCycle);
    }

    /** @param breakpoints all of them */
    synchronized List<ProgramWatch.Breakpoint> breakpoints(List<ProgramWatch.Breakpoint> breakpoints) {
        want(wanted.withBreakpoints(breakpoints));
        return wanted.breakpoints();
    }

    /** @param expressions all of them */
    synchronized List<String> watches(List<String> expressions) {
        want(wanted.withWatches(expressions));
        return wanted.watches();
    }

    /** @param names all of them */
    synchronized List<String> traced(List<String> names) {
        want(wanted.withTraced(names));
        return wanted.traced();
    }

    /** @return the latest changes of a value of the program; empty when none has this name or nothing runs */
    Optional<List<ValueChanges.ValueChange>> history(String name) {
        LiveBench present = bench;
        return present == null ? Optional.empty() : present.history(name);
    }

    private void want(ProgramWatch.Wanted changed) {
        wanted = changed;
        LiveBench present = bench;
        if (present != null) {
            present.want(changed);
            publish();
        }
    }

    LiveBench.State step(String key, Tracer.Step how) {
        return with(key, b -> {
            seenAt = nanos.getAsLong();
            b.step(how);
        });
    }

    LiveBench.State toLine(String key, String file, int line) {
        return with(key, b -> {
            seenAt = nanos.getAsLong();
            if (!b.toLine(file, line)) {
                throw new InvalidEntry("line", file + ", line " + line, "a line with a statement behind it", "put the cursor into the statements of the program that runs");
            }
        });
    }

    LiveBench.State write(String key, String name, String value, boolean force) {
        return with(key, b -> {
            String refusal = b.write(name, value, force);
            if (refusal != null) {
                throw new InvalidEntry("value", value, "a value that " + name + " can have", refusal);
            }
        });
    }

    LiveBench.State release(String key, String name) {
        return with(key, b -> b.release(name));
    }

    LiveBench.State speed(String key, double factor) {
        return with(key, b -> b.speed(factor));
    }

    /** Whoever sees something go wrong may stop it: no key is needed. */
    synchronized LiveBench.State stopAllAxes() {
        LiveBench present = present();
        present.stopAllAxes();
        return publish();
    }

    /** Whoever opens a door or presses an emergency stop needs no key. */
    synchronized LiveBench.State ask(String request, boolean firstOpen, boolean secondOpen) {
        present().ask(request, firstOpen, secondOpen);
        return publish();
    }

    LiveBench.State acknowledge(String key) {
        return with(key, LiveBench::acknowledge);
    }

    List<GuardsNow.Told> guardLog() {
        LiveBench present = bench;
        return present == null ? List.of() : present.guardLog();
    }

    /** Takes control by hand of the bench as it stands, or of a new one; its program is held before the key is given out. @return the holder's key */
    String takeControl(double monitoringSeconds) {
        MachineState state = machines.get(machineId);
        synchronized (this) {
            refuseWhileHeld();
            LiveBench present = bench;
            if (present == null || present.revision() != state.revision() || present.stopped()) {
                present = connected(new LiveBench(state.document(), state.revision(), LiveBench.Kind.BY_HAND, "", condition));
                put(present);
            }
            seenAt = nanos.getAsLong();
            present.takeByHand();
            present.running(true);
            String key = lease.take(monitoringSeconds, nanos.getAsLong());
            publish();
            return key;
        }
    }

    synchronized void renewControl(String key) {
        if (!lease.renew(key, nanos.getAsLong())) {
            throw new NotFound("control with this key; it was given back, or not renewed in time");
        }
    }

    synchronized void releaseControl(String key) {
        LiveBench present = bench;
        if (lease.release(key) && present != null) {
            present.endByHand();
            publish();
        }
    }

    LiveBench.ProcessData processData(String axis) {
        LiveBench present = bench;
        if (present == null) {
            throw new NotFound("bench running");
        }
        return present.processData(axis).orElseThrow(() -> new NotFound("axis " + axis + " on the bench"));
    }

    /** Which values stand in which lines of the program that runs. */
    List<CompiledProgram.LineValues> lineValues() {
        LiveBench present = bench;
        if (present == null) {
            throw new NotFound("bench running");
        }
        return present.lineValues();
    }

    /** Frames of the last bus cycles as pcapng. */
    byte[] traffic() {
        LiveBench present = bench;
        if (present == null) {
            throw new NotFound("bench running");
        }
        return present.traffic(System.currentTimeMillis() / 1000 * 1_000_000_000L);
    }

    Map<String, Set<Mistake>> condition() {
        return condition;
    }

    /** What is wrong at the machine of an axis; on a bench that is there it acts from the next bus cycle. */
    synchronized Map<String, Set<Mistake>> condition(String axis, Set<Mistake> faults) {
        refuseWhileHeld();
        Map<String, Set<Mistake>> changed = new TreeMap<>(condition);
        if (faults.isEmpty()) {
            changed.remove(axis);
        } else {
            changed.put(axis, faults);
        }
        condition = Map.copyOf(changed);
        LiveBench present = bench;
        if (present != null) {
            present.condition(condition);
            publish();
        }
        return condition;
    }

    /** @return why it was refused, or null */
    synchronized String handOrder(String key, HandController.HandOrder order) {
        renewControl(key);
        LiveBench present = present();
        String refusal = present.order(order);
        publish();
        return refusal;
    }

    /** Writes the saved parameters into the devices of the bench. */
    LiveBench.State writeDevices(String key) {
        MachineState state = machines.get(machineId);
        return with(key, b -> b.write(state.document(), state.revision()));
    }

    LiveBench.State keep(String key, String axis) {
        return with(key, b -> b.keep(axis));
    }

    LiveBench.State restart(String key, String axis) {
        return with(key, b -> b.restart(axis));
    }

    /** What a device holds, beside what the saved machine says and an image, which may be null. */
    List<DeviceValues.DeviceGroup> device(String axis, Axis image) {
        LiveBench present = bench;
        Axis project = machines.get(machineId).document().axis(axis).orElseThrow(() -> new NotFound("axis " + axis));
        return DeviceValues.of(project, present == null ? new DeviceMemory(project) : present.device(axis), image);
    }

    /** All parameters that a device holds in its working memory. Without a bench it is switched on, held. */
    Axis held(String axis) {
        if (bench == null) {
            start(LiveBench.Kind.HOMING, axis, false);
        }
        return bench.device(axis).working();
    }

    LiveBench.State writeDevice(String key, String axis, Axis source, Set<ParameterGroup> groups, int reached) {
        return with(key, b -> b.writeDevice(axis, source, groups, reached));
    }

    LiveBench.State endWriting(String key, String axis, boolean finish) {
        return with(key, b -> b.endWriting(axis, finish));
    }

    LiveBench.State factoryReset(String key, String axis) {
        return with(key, b -> b.factoryReset(axis));
    }

    /** A bench as the devices on it really are: who is not found stays silent, and some arrive with parameters of their own. */
    private LiveBench connected(LiveBench made) {
        made.disconnect(stand.unreachable(made.machine()));
        for (Axis axis : made.machine().axes()) {
            if (stand.holdData().contains(axis.name())) {
                made.holds(axis.name(), Stand.parametersOfItsOwn(axis));
            }
        }
        return made;
    }

    /**
     * Changes the devices, and switches a bench that is there off and on again, held. While somebody moves axes by hand it is refused, and then
     * nothing has changed.
     */
    synchronized void switchedOffAndOn(Runnable change) {
        refuseWhileHeld();
        change.run();
        LiveBench present = bench;
        if (present != null) {
            put(connected(present.in(condition)));
            publish();
        }
    }

    private void refuseWhileHeld() {
        permit(null);
    }

    /** @param key what the order came with, null for none */
    private void permit(String key) {
        long now = nanos.getAsLong();
        endUnrenewed(now);
        if (lease.held(now) && !lease.renew(key, now)) {
            throw new ControlHeld();
        }
    }

    private synchronized void endUnrenewed(long now) {
        if (lease.expire(now) && bench != null) {
            LOG.info("Control by hand was not renewed in time: the axes ramp down.");
            bench.endByHand();
        }
    }

    private LiveBench present() {
        LiveBench present = bench;
        if (present == null) {
            throw new NotFound("bench running; start a program or homing first");
        }
        return present;
    }

    private synchronized LiveBench.State with(String key, Consumer<LiveBench> action) {
        permit(key);
        action.accept(present());
        return publish();
    }

    private LiveBench.State publish() {
        synchronized (publishing) {
            LiveBench present = bench;
            if (present == null) {
                return null;
            }
            LiveBench.State state = present.state();
            stream.send(state);
            for (String axis : stream.looks()) {
                present.processData(axis).ifPresent(stream::send);
            }
            LiveBench.Columns columns = present.columns();
            if (announced != columns.key()) {
                announced = columns.key();
                stream.send(columns);
            }
            ByteBuffer samples = present.samples();
            if (samples != null) {
                stream.send(samples);
            }
            return state;
        }
    }

    /** What a page is told that joins while there is no bench. @param condition the mistakes of wiring that are made on the next one */
    record Off(String type, Map<String, Set<Mistake>> condition) {
    }

    /** What a page is told when its bench has ended by a mistake of Rueda. */
    record Ended(String type, String words) {
    }

    private void tick() {
        long before = nanos.getAsLong();
        LiveBench present = null;
        while (!closing) {
            try {
                Thread.sleep(FRAME_NANOS / 1_000_000);
                long now = nanos.getAsLong();
                endUnrenewed(now);
                if (unseen(now)) {
                    return;
                }
                present = bench;
                if (present != null && present.advance((now - before) * 1e-9)) {
                    publish();
                }
                before = now;
            } catch (InterruptedException | CalculationCancelled ended) {
                return;
            } catch (Exception | Error unexpected) {
                end(present, unexpected);
            }
        }
    }

    /** Also what tells of the failure can fail, when memory is out: the thread must not. */
    private void end(LiveBench failed, Throwable failure) {
        try {
            synchronized (this) {
                if (bench != failed) {
                    LOG.error("A bench that had been replaced ended.", failure);
                    return;
                }
                bench = null;
                failed.close();
            }
            LOG.error("The bench ended.", failure);
            String reason = failure instanceof OutOfMemoryError ? "it needed more memory than there is" : failure instanceof StackOverflowError ? "the program nests too deep" : "Rueda made a mistake";
            stream.send(new Ended("ended", "The bench ended: " + reason + ". The reason is in the server's output. Start it anew."));
        } catch (Exception | Error again) {
            // Told as far as it could be.
        }
    }

    /** Holds a bench that nobody looks at, and puts it away later. @return whether it is put away, and the clock with it */
    private boolean unseen(long now) {
        if (stream.listeners() > 0 || lease.held(now)) {
            seenAt = now;
            return false;
        }
        if (now - seenAt <= UNSEEN_NANOS) {
            return false;
        }
        LiveBench present = bench;
        if (present != null && present.hold()) {
            LOG.info("No page listens: the bench of machine {} is held.", machineId);
        }
        synchronized (this) {
            if (now - seenAt <= KEPT_NANOS || stream.listeners() > 0 || lease.held(now)) {
                return false;
            }
            if (present != null) {
                present.close();
            }
            bench = null;
            clock = null;
            return true;
        }
    }

    /** There is no bench: it was never made, has failed, or was put away. */
    boolean off() {
        return bench == null;
    }

    /** Ends the bench and its clock for good. */
    synchronized void close() {
        closing = true;
        if (bench != null) {
            bench.close();
        }
        bench = null;
        if (clock != null) {
            clock.interrupt();
        }
    }
}
