package rueda.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import rueda.machine.Axis;
import rueda.machine.AxisGuard.Ask;
import rueda.machine.Machine;
import rueda.machine.Protection;
import rueda.machine.SafetyRequest;
import rueda.quantity.InvalidEntry;

/** A change of the list of requests, with everything that follows from it. */
public sealed interface SafetyRequestEdit {

    /** @return the document after the change  @throws InvalidEntry naming what is refused */
    Machine on(Machine machine);

    /** Another one at the end, under the first free name of Request 1, Request 2 … */
    record Add() implements SafetyRequestEdit {
        @Override
        public Machine on(Machine machine) {
            int number = 1;
            while (taken(machine, "Request " + number)) {
                number++;
            }
            if (machine.safetyRequests().size() >= SafetyRequest.MOST) {
                throw new InvalidEntry("request", "one more", "up to " + SafetyRequest.MOST + " requests", "remove one first");
            }
            List<SafetyRequest> requests = new ArrayList<>(machine.safetyRequests());
            requests.add(new SafetyRequest("Request " + number, 0, 4, 50, Protection.NONE, 0));
            return machine.withSafetyRequests(requests);
        }
    }

    /** What axes answer it with and what scripts say follow. @param request its present name  @param name its name from now on */
    record Rename(String request, String name) implements SafetyRequestEdit {
        @Override
        public Machine on(Machine machine) {
            SafetyRequest old = found(machine, request);
            String to = name.strip();
            if (to.isEmpty() || to.length() > 80 || !to.equalsIgnoreCase(old.name()) && taken(machine, to)) {
                throw new InvalidEntry("name", to, "1 to 80 characters that no other request is called by", "choose another");
            }
            return asked(machine, ask -> ask.request().equals(old.name()) ? new Ask(to, ask.function()) : ask)
                    .withSafetyRequests(machine.safetyRequests().stream().map(r -> r == old ? r.withName(to) : r).toList())
                    .withProofs(machine.proofs().stream().map(p -> p.withScript(p.script().stream().map(s -> old.name().equals(s.request()) ? s.withRequest(to) : s).toList())).toList());
        }
    }

    /** No axis answers it any more, and no script asks by it. @param request its name */
    record Remove(String request) implements SafetyRequestEdit {
        @Override
        public Machine on(Machine machine) {
            SafetyRequest old = found(machine, request);
            return asked(machine, ask -> ask.request().equals(old.name()) ? null : ask).withSafetyRequests(machine.safetyRequests().stream().filter(r -> r != old).toList())
                    .withProofs(machine.proofs().stream().map(p -> ProofEdit.without(p, step -> old.name().equals(step.request()))).toList());
        }
    }

    private static Machine asked(Machine machine, Function<Ask, Ask> change) {
        List<Axis> axes = machine.axes().stream().map(a -> a.withGuard(a.guard().withAsks(a.guard().asks().stream().map(change).filter(ask -> ask != null).toList()))).toList();
        return machine.withAxes(axes);
    }

    private static boolean taken(Machine machine, String name) {
        return machine.safetyRequests().stream().anyMatch(r -> r.name().equalsIgnoreCase(name));
    }

    private static SafetyRequest found(Machine machine, String name) {
        return machine.safetyRequests().stream().filter(r -> r.name().equals(name)).findFirst()
                .orElseThrow(() -> new InvalidEntry("request", String.valueOf(name), "the name of a request of this machine", "choose one of them"));
    }
}
