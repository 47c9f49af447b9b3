package rueda.plc.type;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/**
 * A function block: what its instances hold, written in Structured Text or in Java. The layout is set once, when the declarations of the
 * block have been read; until then it has none, so that a block which would hold itself can be told.
 */
public final class BlockType implements DataType {

    /** How a member of a block is seen from outside. */
    public enum Role { INPUT, OUTPUT, IN_OUT, INNER }

    /**
     * A pin or an inner variable.
     *
     * @param offset   cells from the first one; of an IN_OUT where the place of what was given is kept
     * @param required must be given in every call
     */
    public record Member(String name, DataType type, Role role, int offset, boolean required) {
    }

    private final String name;
    private final Map<String, Member> byName = new LinkedHashMap<>();
    private List<Member> members;
    private int cells;

    public BlockType(String name) {
        this.name = name;
    }

    /** Sets what it holds. @param cells all of them */
    public void layOut(List<Member> held, int cells) {
        members = List.copyOf(held);
        members.forEach(m -> byName.putIfAbsent(m.name().toUpperCase(Locale.ROOT), m));
        this.cells = cells;
    }

    /** Its declarations have been read. */
    public boolean laidOut() {
        return members != null;
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
        return name;
    }
}
