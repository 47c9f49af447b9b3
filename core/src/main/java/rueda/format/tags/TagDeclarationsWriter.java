package rueda.format.tags;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import rueda.plc.ProcessAddress;
import rueda.plc.TagRow;

/**
 * Declarations in Structured Text. Rows whose names share all but the last part become a structure; what lies between them is
 * declared as filler, so that a packed PLC puts every member where it travels. A name with dots stands in a pragma before the variable.
 */
public final class TagDeclarationsWriter {

    private TagDeclarationsWriter() {
    }

    /** @param rows in the order of their places; of each structure one direction */
    public static String write(List<TagRow> rows) {
        Map<String, List<TagRow>> structures = new LinkedHashMap<>();
        for (TagRow row : rows) {
            int dot = row.name().lastIndexOf('.');
            structures.computeIfAbsent(dot < 0 ? "" : row.name().substring(0, dot), k -> new ArrayList<>()).add(row);
        }
        StringBuilder types = new StringBuilder();
        StringBuilder variables = new StringBuilder("VAR_GLOBAL\n");
        structures.forEach((name, members) -> {
            if (name.isEmpty()) {
                members.forEach(row -> variables.append("  ").append(row.name()).append(address(row)).append(" : ").append(row.type()).append(";").append(comment(row)).append('\n'));
                return;
            }
            String type = name.replace('.', '_') + "_T";
            types.append("  ").append(type).append(" : STRUCT\n");
            int next = members.get(0).bitOffset();
            int fillers = 0;
            for (TagRow row : members) {
                while (next + 8 <= row.bitOffset()) {
                    boolean word = next % 16 == 0 && next + 16 <= row.bitOffset();
                    types.append("    Filler").append(++fillers).append(word ? " : WORD;\n" : " : BYTE;\n");
                    next += word ? 16 : 8;
                }
                types.append("    ").append(row.name().substring(name.length() + 1)).append(" : ").append(row.type()).append(";").append(comment(row)).append('\n');
                next = row.bitOffset() + row.bits();
            }
            types.append("  END_STRUCT;\n");
            if (name.indexOf('.') >= 0) {
                variables.append("  {name '").append(name).append("'}\n");
            }
            variables.append("  ").append(name.replace('.', '_')).append(members.get(0).output() == null ? "" : " AT " + ProcessAddress.text(members.get(0).output(), members.get(0).bitOffset(), 8))
                    .append(" : ").append(type).append(";\n");
        });
        return (types.isEmpty() ? "" : "TYPE\n" + types + "END_TYPE\n\n") + variables + "END_VAR\n";
    }

    private static String address(TagRow row) {
        return row.output() == null ? "" : " AT " + ProcessAddress.text(row.output(), row.bitOffset(), row.bits());
    }

    private static String comment(TagRow row) {
        return row.comment().isEmpty() ? "" : "  (* " + row.comment().replace("*)", "* )") + " *)";
    }
}
