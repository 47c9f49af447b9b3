package rueda.app.live;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import rueda.app.machine.MachineJson;
import rueda.drive.DeviceMemory;
import rueda.drive.ParameterGroup;
import rueda.edit.EntryWords;
import rueda.machine.Axis;
import tools.jackson.databind.JsonNode;

/** The parameters of a device value by value: in the project, in its working memory, in its permanent memory, and acting. */
final class DeviceValues {

    private DeviceValues() {
    }

    /**
     * @param name      place in the document of the axis, such as /control/positionGain
     * @param words     what it is called
     * @param unit      empty for a plain number
     * @param project   what the saved machine says
     * @param working   what was written to the device
     * @param permanent what it keeps when it is switched off
     * @param acting    what acts now
     * @param image     in the image that is compared, empty without one
     */
    record DeviceValue(String name, String words, String unit, String project, String working, String permanent, String acting, String image) {
    }

    /**
     * @param group  key of the group
     * @param words  its name
     * @param acts   when a written value begins to act
     * @param values all its values
     */
    record DeviceGroup(ParameterGroup group, String words, ParameterGroup.Acts acts, List<DeviceValue> values) {
    }

    /** @param image null for none */
    static List<DeviceGroup> of(Axis project, DeviceMemory memory, Axis image) {
        List<JsonNode> four = new ArrayList<>(List.of(MachineJson.tree(project), MachineJson.tree(memory.working()), MachineJson.tree(memory.permanent()), MachineJson.tree(memory.acting())));
        if (image != null) {
            four.add(MachineJson.tree(image));
        }
        return Arrays.stream(ParameterGroup.values()).map(group -> new DeviceGroup(group, group.words(), group.acts(), values(project, group, four))).toList();
    }

    /** The values of one axis alone, as those of the project. */
    static List<DeviceValue> of(ParameterGroup group, Axis held) {
        JsonNode tree = MachineJson.tree(held);
        return values(held, group, List.of(tree, tree, tree, tree));
    }

    private static List<DeviceValue> values(Axis axis, ParameterGroup group, List<JsonNode> four) {
        TreeSet<String> names = new TreeSet<>();
        for (JsonNode one : four) {
            group.pointers().forEach(pointer -> leaves(pointer, one.at(pointer), names));
        }
        List<DeviceValue> values = new ArrayList<>();
        for (String name : names) {
            EntryWords.Named named = EntryWords.at(axis, name);
            values.add(new DeviceValue(name, named.words(), named.unit(), text(four.get(0).at(name)), text(four.get(1).at(name)), text(four.get(2).at(name)), text(four.get(3).at(name)), four.size() > 4 ? text(four.get(4).at(name)) : ""));
        }
        return values;
    }

    private static void leaves(String pointer, JsonNode node, TreeSet<String> into) {
        if (node.isObject()) {
            for (Map.Entry<String, JsonNode> child : node.properties()) {
                leaves(pointer + "/" + child.getKey(), child.getValue(), into);
            }
        } else if (node.isArray()) {
            for (int i = 0; i < node.size(); i++) {
                leaves(pointer + "/" + i, node.get(i), into);
            }
        } else if (!node.isMissingNode()) {
            into.add(pointer);
        }
    }

    private static String text(JsonNode node) {
        return node.isMissingNode() ? "–" : node.isNumber() && node.asDouble() == Math.rint(node.asDouble()) && Math.abs(node.asDouble()) < 1e15 ? Long.toString(node.asLong()) : node.asString();
    }
}
