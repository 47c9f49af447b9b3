package rueda.plc.code;

import java.util.ArrayList;
import java.util.List;

/** Cuts long code into methods that the just-in-time compiler takes: groups of statements become {@link Action.Part}s of their own. */
final class Outline {

    /** Bytes of one method, by the estimate of {@link Sizes}. */
    private static final int LONGEST = 5_000;
    private static final int WORTH = 24;

    private Outline() {
    }

    /** The same statements, none of their methods too long. */
    static List<Action> of(List<Action> actions) {
        List<Action> shorter = new ArrayList<>();
        for (Action action : actions) {
            shorter.add(Sizes.of(action) <= LONGEST ? action : inside(action, false));
        }
        return Sizes.of(shorter) <= LONGEST ? shorter : grouped(shorter);
    }

    /** Neighbours together, as many as one method takes. */
    private static List<Action> grouped(List<Action> actions) {
        List<Action> result = new ArrayList<>();
        List<Action> group = new ArrayList<>();
        int size = 0;
        for (Action action : actions) {
            int more = Sizes.of(action);
            if (!group.isEmpty() && size + more > LONGEST) {
                result.add(new Action.Part(group));
                group = new ArrayList<>();
                size = 0;
            }
            group.add(action);
            size += more;
        }
        if (!group.isEmpty()) {
            result.add(new Action.Part(group));
        }
        return result.size() * 40 > LONGEST && result.size() > 1 ? grouped(result) : result;
    }

    /** @param all every list inside becomes a part, however short: the statement itself is too long */
    private static Action inside(Action action, boolean all) {
        Action made = action;
        if (action instanceof Action.If choice) {
            made = new Action.If(choice.branches().stream().map(b -> new Action.Branch(b.line(), b.condition(), list(b.body(), all))).toList(), list(choice.otherwise(), all));
        } else if (action instanceof Action.Case choice) {
            made = new Action.Case(choice.line(), choice.selector(), choice.unsigned(), choice.labels(), choice.bodies().stream().map(b -> list(b, all)).toList(), list(choice.otherwise(), all));
        } else if (action instanceof Action.For loop) {
            made = new Action.For(loop.line(), loop.counter(), loop.bits(), loop.signed(), loop.from(), loop.to(), loop.step(), list(loop.body(), all));
        } else if (action instanceof Action.While loop) {
            made = new Action.While(loop.line(), loop.condition(), list(loop.body(), all));
        } else if (action instanceof Action.Repeat loop) {
            made = new Action.Repeat(loop.line(), list(loop.body(), all), loop.untilLine(), loop.until());
        }
        return all || Sizes.of(made) <= LONGEST ? made : inside(made, true);
    }

    private static List<Action> list(List<Action> actions, boolean all) {
        List<Action> shorter = of(actions);
        boolean part = all && Sizes.of(shorter) > WORTH && !(shorter.size() == 1 && shorter.get(0) instanceof Action.Part);
        return part ? List.of(new Action.Part(shorter)) : shorter;
    }
}
