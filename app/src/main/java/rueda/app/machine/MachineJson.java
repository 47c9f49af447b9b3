package rueda.app.machine;

import rueda.machine.Machine;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/** The machine document as JSON: the file format and the column of the database. */
public final class MachineJson {

    private static final JsonMapper MAPPER = JsonMapper.builder().build();
    private static final JsonMapper PRETTY = JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();

    private MachineJson() {
    }

    /** @throws IllegalArgumentException naming the place in the text that cannot be read */
    public static Machine read(String json) {
        try {
            JsonNode document = MAPPER.readTree(json);
            if (document == null || !document.isObject()) {
                throw new IllegalArgumentException("the text holds no machine");
            }
            OlderDocument.upgrade(document);
            return MAPPER.treeToValue(document, Machine.class);
        } catch (JacksonException unreadable) {
            throw new IllegalArgumentException(unreadable.getOriginalMessage() + " (" + unreadable.getPathReference() + ")", unreadable);
        }
    }

    public static String write(Object value) {
        return MAPPER.writeValueAsString(value);
    }

    public static JsonNode tree(Object value) {
        return MAPPER.valueToTree(value);
    }

    public static String pretty(Object value) {
        return PRETTY.writeValueAsString(value);
    }

    public static <T> T read(String json, Class<T> type) {
        return MAPPER.readValue(json, type);
    }
}
