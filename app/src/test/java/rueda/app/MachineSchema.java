package rueda.app;

import java.util.TreeMap;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** The JSON Schema of the machine file, made from the description of the interface: the same records are behind both. */
final class MachineSchema {

    private static final JsonMapper JSON = JsonMapper.builder().build();

    private MachineSchema() {
    }

    static JsonNode of(JsonNode openApi) {
        TreeMap<String, JsonNode> found = new TreeMap<>();
        collect("Machine", openApi, found);
        ObjectNode schema = JSON.createObjectNode();
        schema.put("$schema", "https://json-schema.org/draft/2020-12/schema");
        schema.put("title", "Rueda machine file");
        schema.put("$ref", "#/$defs/Machine");
        ObjectNode definitions = schema.putObject("$defs");
        found.forEach(definitions::set);
        return JSON.readTree(schema.toString().replace("#/components/schemas/", "#/$defs/"));
    }

    private static void collect(String name, JsonNode openApi, TreeMap<String, JsonNode> into) {
        if (into.containsKey(name)) {
            return;
        }
        ObjectNode node = (ObjectNode) openApi.at("/components/schemas/" + name).deepCopy();
        into.put(name, node);
        java.util.Set<String> required = new java.util.HashSet<>();
        node.path("required").forEach(r -> required.add(r.asString()));
        node.path("properties").properties().forEach(property -> {
            if (!required.contains(property.getKey()) && property.getValue() instanceof ObjectNode open && open.has("type")) {
                ArrayNode types = JSON.createArrayNode().add(open.get("type")).add("null");
                open.set("type", types);
                if (open.get("enum") instanceof ArrayNode values) {
                    values.addNull();
                }
            }
        });
        java.util.regex.Pattern.compile("#/components/schemas/(\\w+)").matcher(node.toString()).results().forEach(r -> collect(r.group(1), openApi, into));
    }
}
