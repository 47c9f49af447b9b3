package rueda.app.machine;

import rueda.machine.Machine;
import tools.jackson.core.JacksonException;
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
            Machine machine = MAPPER.readValue(json, Machine.class);
            if (machine == null) {
                throw new IllegalArgumentException("the text is empty");
            }
            return machine;
        } catch (JacksonException unreadable) {
            throw new IllegalArgumentException(unreadable.getOriginalMessage() + " (" + unreadable.getPathReference() + ")", unreadable);
        }
    }

    public static String write(Object value) {
        return MAPPER.writeValueAsString(value);
    }

    public static String pretty(Object value) {
        return PRETTY.writeValueAsString(value);
    }

    public static <T> T read(String json, Class<T> type) {
        return MAPPER.readValue(json, type);
    }
}
