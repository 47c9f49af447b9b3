package rueda.plc.code;

import java.util.List;

/** About how many bytes of code something makes: the just-in-time compiler leaves methods above 8 000 bytes alone, and 65 535 are the most. */
final class Sizes {

    private Sizes() {
    }

    static int of(List<Action> actions) {
        return actions.stream().mapToInt(Sizes::of).reduce(0, Sizes::sum);
    }

    private static int sum(int a, int b) {
        return (int) Math.min(Integer.MAX_VALUE, (long) a + b);
    }

    static int of(Action action) {
        if (action instanceof Action.Store store) {
            return sum(8 + of(store.to()), of(store.value()));
        }
        if (action instanceof Action.Copy copy) {
            return 12 + of(copy.to()) + of(copy.from());
        }
        if (action instanceof Action.Reset reset) {
            return 10 + of(reset.to());
        }
        if (action instanceof Action.Evaluate evaluate) {
            return of(evaluate.value()) + 2;
        }
        if (action instanceof Action.CallBlock call) {
            return 10 + of(call.instance());
        }
        if (action instanceof Action.CallNative call) {
            return 32 + of(call.instance());
        }
        if (action instanceof Action.Group group) {
            return of(group.actions());
        }
        if (action instanceof Action.Keep keep) {
            return sum(6 + of(keep.place()), of(keep.actions()));
        }
        if (action instanceof Action.If choice) {
            int size = of(choice.otherwise());
            for (Action.Branch branch : choice.branches()) {
                size = sum(size, 30 + of(branch.condition()) + of(branch.body()));
            }
            return size;
        }
        if (action instanceof Action.Case choice) {
            int size = sum(60 + of(choice.selector()) + of(choice.otherwise()), 12 * choice.labels().size());
            for (List<Action> body : choice.bodies()) {
                size = sum(size, 6 + of(body));
            }
            return size;
        }
        if (action instanceof Action.For loop) {
            return 90 + 3 * of(loop.counter()) + of(loop.from()) + of(loop.to()) + of(loop.step()) + of(loop.body());
        }
        if (action instanceof Action.While loop) {
            return 40 + of(loop.condition()) + of(loop.body());
        }
        if (action instanceof Action.Repeat loop) {
            return 40 + of(loop.until()) + of(loop.body());
        }
        return action instanceof Action.Part ? 24 : 4;
    }

    static int of(Address address) {
        int size = 4 + (address.start() instanceof Address.Pointer pointer ? 10 + of(pointer.cell()) : 0);
        for (Address.Step step : address.steps()) {
            size += 14 + of(step.index()) + of(step.low()) + of(step.high());
        }
        return size;
    }

    static int of(Node node) {
        if (node instanceof Node.Load load) {
            return 8 + of(load.address());
        }
        if (node instanceof Node.Place place) {
            return 1 + of(place.address());
        }
        if (node instanceof Node.With with) {
            return sum(of(with.value()), sum(of(with.before()), of(with.after())));
        }
        if (node instanceof Node.Call call) {
            int size = 18 + of(call.outputs()) + (call.enabled() == null ? 0 : 10 + of(call.enabled()));
            for (Action.Store input : call.inputs()) {
                size = sum(size, 8 + of(input));
            }
            return size;
        }
        return node.parts().stream().mapToInt(Sizes::of).reduce(own(node), Sizes::sum);
    }

    /** Of the instructions that put its parts together. */
    private static int own(Node node) {
        if (node instanceof Node.Pick pick) {
            return 20 + 14 * pick.values().size();
        }
        return node instanceof Node.Comparison ? 12 : node instanceof Node.Choice ? 8 : node instanceof Node.Wrapped ? 5 : node instanceof Node.Inversion || node instanceof Node.Invoke ? 4 : 3;
    }
}
