package rueda.app.live;

import jakarta.annotation.PreDestroy;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.springframework.stereotype.Service;
import rueda.app.machine.MachineStore;
import rueda.app.web.Refusals.NotFound;
import rueda.app.work.Daemons;

/** The live benches, one for each machine that somebody works on: each with its own clock, control lease and devices. Thread-safe. */
@Service
public class Benches {

    private final MachineStore machines;
    private final Map<Long, BenchSession> sessions = new ConcurrentHashMap<>();
    private final ExecutorService senders = Executors.newCachedThreadPool(Daemons.named("live"));

    Benches(MachineStore machines) {
        this.machines = machines;
        machines.onDelete(this::end);
    }

    /** @throws NotFound when there is no such machine */
    BenchSession of(long machineId) {
        BenchSession there = sessions.get(machineId);
        if (there != null) {
            return there;
        }
        if (!machines.exists(machineId)) {
            throw new NotFound("machine " + machineId);
        }
        return sessions.computeIfAbsent(machineId, id -> new BenchSession(id, machines, new LiveStream(senders), new Stand()));
    }

    /** The machine has been deleted. */
    private void end(long machineId) {
        BenchSession there = sessions.remove(machineId);
        if (there != null) {
            there.close();
            there.stream().end();
        }
    }

    @PreDestroy
    void close() {
        sessions.values().forEach(BenchSession::close);
        senders.shutdownNow();
    }
}
