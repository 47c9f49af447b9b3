package rueda.app.machine;

import java.util.Arrays;
import java.util.List;
import rueda.app.web.Refusals.RefusedEntries;
import rueda.machine.EntryFault;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/** One operation of a JSON Patch on a tree: add, replace and remove, RFC 6902 sections 4.1 to 4.3. */
final class JsonChange {

    private JsonChange() {
    }

    /** The tree after a change: nodes on the way to its place are new, all others are shared. @throws RefusedEntries when there is no such place */
    static JsonNode apply(JsonNode tree, String op, String path, JsonNode value) {
        if (op == null || path == null || !List.of("add", "replace", "remove").contains(op)) {
            throw refused(String.valueOf(path), String.valueOf(op), "add, replace or remove");
        }
        if (path.isEmpty() && op.equals("replace")) {
            return value;
        }
        if (!path.startsWith("/")) {
            throw refused(path, path, "a JSON pointer (RFC 6901)");
        }
        String[] keys = Arrays.stream(path.split("/", -1)).skip(1).map(key -> key.replace("~1", "/").replace("~0", "~")).toArray(String[]::new);
        JsonNode root = shallow(tree);
        JsonNode parent = root;
        for (int i = 0; i < keys.length - 1; i++) {
            JsonNode child = shallow(parent instanceof ArrayNode array ? array.get(index(path, keys[i], array.size() - 1)) : parent.get(keys[i]));
            if (child == null) {
                throw refused(path, op, "a place in the document");
            }
            if (parent instanceof ArrayNode array) {
                array.set(Integer.parseInt(keys[i]), child);
            } else if (parent instanceof ObjectNode object) {
                object.set(keys[i], child);
            }
            parent = child;
        }
        String last = keys[keys.length - 1];
        if (parent instanceof ObjectNode object) {
            if (!op.equals("add") && !object.has(last)) {
                throw refused(path, op, "a place in the document");
            }
            if (op.equals("remove")) {
                object.remove(last);
            } else {
                object.set(last, value);
            }
        } else if (parent instanceof ArrayNode array) {
            if (op.equals("add")) {
                array.insert(last.equals("-") ? array.size() : index(path, last, array.size()), value);
            } else if (op.equals("remove")) {
                array.remove(index(path, last, array.size() - 1));
            } else {
                array.set(index(path, last, array.size() - 1), value);
            }
        } else {
            throw refused(path, op, "a place in the document");
        }
        return root;
    }

    private static JsonNode shallow(JsonNode node) {
        return node instanceof ObjectNode object ? JsonNodeFactory.instance.objectNode().setAll(object) : node instanceof ArrayNode array ? JsonNodeFactory.instance.arrayNode(array.size()).addAll(array) : node;
    }

    private static int index(String path, String key, int most) {
        int index = key.matches("0|[1-9]\\d{0,6}") ? Integer.parseInt(key) : Integer.MAX_VALUE;
        if (index > most) {
            throw refused(path, key, "an index up to " + most);
        }
        return index;
    }

    private static RefusedEntries refused(String path, String value, String allowed) {
        return new RefusedEntries(List.of(new EntryFault(path, "Change", value, allowed, "send the whole document")));
    }
}
