package rueda.plc.type;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;

/** A structure: members one behind the other. */
public final class StructType implements DataType {

    /**
     * A member.
     *
     * @param offset cells from the first one
     */
    public record Member(String name, DataType type, int offset) {
    }

    private final String name;
    private final List<Member> members;
    private final Map<String, Member> byName;
    private final int cells;

    /** @param name of its declaration, or empty */
    public StructType(String name, List<Member> members) {
        this.name = name;
        this.members = List.copyOf(members);
        byName = members.stream().collect(Collectors.toMap(m -> m.name().toUpperCase(Locale.ROOT), Function.identity(), (a, b) -> a));
        cells = members.isEmpty() ? 0 : Math.addExact(members.get(members.size() - 1).offset(), members.get(members.size() - 1).type().cells());
    }

    public List<Member> members() {
        return members;
    }

    /** The member with this name, in any case, or null. */
    public Member member(String memberName) {
        return byName.get(memberName.toUpperCase(Locale.ROOT));
    }

    @Override
    public int cells() {
        return cells;
    }

    @Override
    public Type elementary() {
        return null;
    }

    @Override
    public String written() {
        return name.isEmpty() ? "STRUCT" : name;
    }
}
