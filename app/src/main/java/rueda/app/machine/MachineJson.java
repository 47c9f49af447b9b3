package rueda.app.machine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import com.fasterxml.jackson.annotation.JsonSetter;
import rueda.app.json.Completeness;
import rueda.app.json.StrictJson;
import rueda.advice.Finding.Change;
import rueda.app.web.Refusals.RefusedEntries;
import rueda.machine.Axis;
import rueda.machine.EntryFault;
import rueda.machine.Machine;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.NullNode;

/** The machine document as JSON: the file format and the column of the database. */
public final class MachineJson {

    private static final JsonMapper STRICT = StrictJson.strict(JsonMapper.builder(StrictJson.bounded())).build();
    /** For what this program has written itself: a document of an older shape may hold entries that are no more. */
    private static final JsonMapper MAPPER = StrictJson.strict(JsonMapper.builder(StrictJson.bounded())).disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
            .withConfigOverride(List.class, lists -> lists.setNullHandling(JsonSetter.Value.empty())).build();
    private static final JsonMapper PRETTY = StrictJson.strict(JsonMapper.builder()).enable(SerializationFeature.INDENT_OUTPUT).build();

    private MachineJson() {
    }

    /** A document as it was stored. @throws IllegalArgumentException naming the place in the text that cannot be read */
    public static Machine read(String json) {
        return read(json, MAPPER);
    }

    /** A machine file that somebody brings: nothing in it may be unknown. @throws IllegalArgumentException naming the place */
    public static Machine readFile(String json) {
        return read(json, STRICT);
    }

    /** @throws IllegalArgumentException when it is no JSON */
    static JsonNode readTree(String json) {
        try {
            return STRICT.readTree(json);
        } catch (JacksonException damaged) {
            throw new IllegalArgumentException("it is no JSON: " + damaged.getOriginalMessage() + ".", damaged);
        }
    }

    /** Places of entries in a stored document that {@link #read(String)} passes over, as JSON pointers, up to 20. */
    static List<String> unknown(String json) {
        List<String> places = new ArrayList<>();
        differences(upgraded(MAPPER.readTree(json)), tree(read(json)), "", places);
        return places;
    }

    private static void differences(JsonNode stored, JsonNode known, String pointer, List<String> places) {
        if (places.size() >= 20) {
            return;
        }
        if (stored.isObject() && known.isObject()) {
            stored.properties().forEach(entry -> {
                String place = pointer + "/" + entry.getKey();
                if (!known.has(entry.getKey())) {
                    if (places.size() < 20) {
                        places.add(place);
                    }
                } else {
                    differences(entry.getValue(), known.get(entry.getKey()), place, places);
                }
            });
        } else if (stored.isArray() && known.isArray()) {
            for (int i = 0; i < Math.min(stored.size(), known.size()); i++) {
                differences(stored.get(i), known.get(i), pointer + "/" + i, places);
            }
        }
    }

    private static Machine read(String json, JsonMapper mapper) {
        try {
            JsonNode document = mapper.readTree(json);
            if (document == null || !document.isObject()) {
                throw new IllegalArgumentException("the text holds no machine");
            }
            Machine machine = mapper.treeToValue(upgraded(document), Machine.class);
            for (EntryFault fault : Completeness.missing(machine)) {
                throw new IllegalArgumentException(words(fault));
            }
            return machine;
        } catch (JacksonException unreadable) {
            throw new IllegalArgumentException(words(StrictJson.fault(unreadable)), unreadable);
        } catch (NumberFormatException unbounded) {
            throw new IllegalArgumentException(words(unboundedNumber(json, mapper)), unbounded);
        }
    }

    /** Where a number stands that no tree of a document can hold: reading without one names its place. */
    private static EntryFault unboundedNumber(String json, JsonMapper mapper) {
        try {
            mapper.readValue(json, Machine.class);
        } catch (JacksonException placed) {
            return StrictJson.fault(placed);
        } catch (NumberFormatException nowhere) {
            // Told without its place.
        }
        return new EntryFault("/", "JSON", "a number with too large an exponent", "numbers up to 1.8E308", "correct it");
    }

    /** In the present shape; a document that is none of the older ones either stays as it is, so that its faults are named. */
    private static JsonNode upgraded(JsonNode document) {
        JsonNode older = document.deepCopy();
        try {
            OlderDocument.upgrade(older);
            return older;
        } catch (RuntimeException unfit) {
            return document;
        }
    }

    private static String words(EntryFault fault) {
        return (fault.field().equals("/") ? fault.label() : fault.field()) + ": " + fault.value() + "; allowed: " + fault.allowed();
    }

    public static String write(Object value) {
        return MAPPER.writeValueAsString(value);
    }

    /**
     * A document with changes, RFC 6902: add, replace, remove. The old one stays as it is.
     *
     * @throws RefusedEntries naming a place that is not there
     */
    public static JsonNode changed(JsonNode document, List<Change> changes) {
        JsonNode copy = document;
        for (Change change : changes) {
            copy = JsonChange.apply(copy, change.op(), change.path(), change.value() == null ? NullNode.getInstance() : STRICT.valueToTree(change.value()));
        }
        return copy;
    }

    /**
     * A document that a page has changed; parts that no change is about are taken from the one before.
     *
     * @throws RefusedEntries when it is none
     */
    public static Machine document(JsonNode tree, Machine before, List<Change> changes) {
        if (!tree.isObject()) {
            throw new RefusedEntries(List.of(new EntryFault("/", "Document", "none", "a machine document", "send one")));
        }
        try {
            Optional<Integer> axis = onlyAxis(changes);
            boolean alone = axis.isPresent() && axis.get() < before.axes().size();
            String place = alone ? "/axes/" + axis.get() : "";
            Object part = alone ? STRICT.treeToValue(tree.at(place), Axis.class) : STRICT.treeToValue(tree, Machine.class);
            Machine machine = part instanceof Axis changed ? before.withAxis(axis.get(), changed) : (Machine) part;
            List<EntryFault> missing = Completeness.missing(part, place);
            if (!missing.isEmpty()) {
                throw new RefusedEntries(missing);
            }
            return machine;
        } catch (JacksonException unreadable) {
            throw new RefusedEntries(List.of(placed(tree, unreadable)));
        }
    }

    /** Read as a whole, so that the place is that in the document. */
    private static EntryFault placed(JsonNode tree, JacksonException part) {
        try {
            STRICT.treeToValue(tree, Machine.class);
        } catch (JacksonException whole) {
            return StrictJson.fault(whole);
        }
        return StrictJson.fault(part);
    }

    /** The axis that all changes are inside of. */
    private static Optional<Integer> onlyAxis(List<Change> changes) {
        Set<String> places = changes.stream().map(c -> c.path().matches("/axes/\\d{1,4}/.+") ? c.path().split("/")[2] : "").collect(Collectors.toSet());
        return places.size() == 1 && !places.contains("") ? Optional.of(Integer.parseInt(places.iterator().next())) : Optional.empty();
    }

    public static JsonNode tree(Object value) {
        return MAPPER.valueToTree(value);
    }

    public static String pretty(Object value) {
        return PRETTY.writeValueAsString(value);
    }

    /**
     * Something that holds what a device held, which may have been kept by an older program.
     *
     * @param heldAt JSON pointer of the axis inside
     */
    public static <T> T readHeld(String json, Class<T> type, String heldAt) {
        JsonNode tree = MAPPER.readTree(json);
        OlderDocument.upgradeHeld(tree.at(heldAt));
        return MAPPER.treeToValue(tree, type);
    }

    public static <T> T read(String json, Class<T> type) {
        return MAPPER.readValue(json, type);
    }
}
