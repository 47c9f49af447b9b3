package rueda.format.tags;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import rueda.plc.ProcessAddress;
import rueda.plc.TagRow;

/**
 * Declarations in Structured Text. Rows whose names share all but the last part become a structure where one can lie on them: of one
 * direction, one after the other, whole bytes. What lies between them is declared as filler, so that a packed PLC puts every member
 * where it travels. All others become variables with an address each. A name that is no identifier stands in a pragma before it.
 */
public final class TagDeclarationsWriter {

    /** Bytes of filler in a structure at the most; members farther apart belong to different stations. */
    private static final int WIDEST_GAP_BYTES = 64;

    private final DeclaredNames globals = new DeclaredNames();
    private final StringBuilder types = new StringBuilder();
    private final StringBuilder variables = new StringBuilder();

    private TagDeclarationsWriter() {
    }

    /** @param rows in the order of their places, each name once */
    public static String write(List<TagRow> rows) {
        Map<String, List<TagRow>> structures = new LinkedHashMap<>();
        List<String> order = rows.stream().map(TagDeclarationsWriter::parent).toList();
        for (int i = 0; i < rows.size(); i++) {
            structures.computeIfAbsent(order.get(i), k -> new ArrayList<>()).add(rows.get(i));
        }
        TagDeclarationsWriter out = new TagDeclarationsWriter();
        structures.forEach((name, members) -> {
            int first = order.indexOf(name);
            boolean together = order.lastIndexOf(name) - first + 1 == members.size();
            if (!name.isEmpty() && together && canBeStructure(members)) {
                out.structure(name, members);
            } else {
                members.forEach(out::variable);
            }
        });
        return (out.types.isEmpty() ? "" : "TYPE\n" + out.types + "END_TYPE\n\n") + "VAR_GLOBAL\n" + out.variables + "END_VAR\n";
    }

    private static String parent(TagRow row) {
        int dot = row.name().lastIndexOf('.');
        return dot < 0 ? "" : row.name().substring(0, dot);
    }

    private static boolean canBeStructure(List<TagRow> members) {
        int next = members.get(0).bitOffset();
        for (TagRow row : members) {
            boolean direction = Objects.equals(row.output(), members.get(0).output());
            boolean wholeBytes = row.bits() % 8 == 0 && row.bitOffset() % 8 == 0;
            int gap = row.bitOffset() - next;
            if (!direction || !wholeBytes || gap < 0 || gap > 8 * WIDEST_GAP_BYTES) {
                return false;
            }
            next = row.bitOffset() + row.bits();
        }
        return true;
    }

    private void structure(String name, List<TagRow> members) {
        String type = globals.identifier(name + "_T");
        DeclaredNames names = new DeclaredNames();
        types.append("  ").append(type).append(" : STRUCT\n");
        StringBuilder body = new StringBuilder();
        List<String> identifiers = members.stream().map(row -> names.identifier(lastPart(row))).toList();
        int next = members.get(0).bitOffset();
        int filler = 0;
        for (int i = 0; i < members.size(); i++) {
            TagRow row = members.get(i);
            while (next < row.bitOffset()) {
                boolean word = next % 16 == 0 && next + 16 <= row.bitOffset();
                body.append("    ").append(names.identifier("Filler" + ++filler)).append(word ? " : WORD;\n" : " : BYTE;\n");
                next += word ? 16 : 8;
            }
            declaration(body, "    ", lastPart(row), identifiers.get(i), "", row.type().name(), row.comment());
            next = row.bitOffset() + row.bits();
        }
        types.append(body).append("  END_STRUCT;\n");
        declaration(variables, "  ", name, globals.identifier(name), members.get(0).output() == null ? "" : ProcessAddress.text(members.get(0).output(), members.get(0).bitOffset(), 8), type, "");
    }

    private static String lastPart(TagRow row) {
        return row.name().substring(row.name().lastIndexOf('.') + 1);
    }

    private void variable(TagRow row) {
        declaration(variables, "  ", row.name(), globals.identifier(row.name()), row.address(), row.type().name(), row.comment());
    }

    private static void declaration(StringBuilder into, String indent, String name, String identifier, String address, String type, String comment) {
        if (!identifier.equals(name)) {
            into.append(indent).append("{name '").append(name).append("'}\n");
        }
        into.append(indent).append(identifier).append(address.isEmpty() ? "" : " AT " + address).append(" : ").append(type).append(';');
        if (!comment.isEmpty()) {
            into.append("  (* ").append(comment.replaceAll("\\s+", " ").replace("*)", "* )")).append(" *)");
        }
        into.append('\n');
    }
}
