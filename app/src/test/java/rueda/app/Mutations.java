package rueda.app;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/** Documents with entries exchanged for odd ones, left out, doubled, or called otherwise. */
final class Mutations {

    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final String[] ODD = {"null", "0", "-1", "1e308", "-1e308", "1e400", "1e-999999999", "1e-300", "9.5", "7", "65536", "\"\"", "\"x\"", "\"NaN\"", "[]", "{}", "true", "2147483647", "-2147483648", "4294967296", "1e19",
        "\"\\ud800\"", "\"\\u0000\"", "[[[]]]", "[null]", "3e-9", "\"-Infinity\"", "\"../x\"", "\"=1+1\"", "123456789012345678901234567890"};

    private Mutations() {
    }

    /** The document as text, with some entries changed. It is changed itself. */
    static String text(JsonNode document, int changes, Random random) {
        for (int m = 0; m < changes; m++) {
            List<String> pointers = new ArrayList<>();
            collect(document, "", pointers);
            if (!pointers.isEmpty()) {
                mutate(document, pointers.get(random.nextInt(pointers.size())), random);
            }
        }
        return document.toString().replaceAll("\"\\\\u0000RAW(.*?)RAW\"", "$1");
    }

    private static void collect(JsonNode node, String pointer, List<String> into) {
        if (!pointer.isEmpty()) {
            into.add(pointer);
        }
        if (node instanceof ObjectNode object) {
            object.properties().forEach(e -> collect(e.getValue(), pointer + "/" + e.getKey().replace("~", "~0").replace("/", "~1"), into));
        } else if (node instanceof ArrayNode array) {
            for (int i = 0; i < array.size(); i++) {
                collect(array.get(i), pointer + "/" + i, into);
            }
        }
    }

    private static void mutate(JsonNode document, String pointer, Random random) {
        JsonNode parent = document.at(pointer.substring(0, pointer.lastIndexOf('/')));
        String last = pointer.substring(pointer.lastIndexOf('/') + 1);
        String raw = ODD[random.nextInt(ODD.length)];
        // Numbers are written as they stand here: a reader of numbers would make others of them.
        JsonNode value = raw.startsWith("\"") || raw.startsWith("[") || raw.startsWith("{") ? JSON.readTree(raw) : JsonNodeFactory.instance.stringNode("\u0000RAW" + raw + "RAW");
        if (parent instanceof ObjectNode object) {
            switch (random.nextInt(6)) {
                case 0 -> object.remove(last);
                case 1 -> object.set(last + "x", value);
                default -> object.set(last, value);
            }
        } else if (parent instanceof ArrayNode array && Integer.parseInt(last) < array.size()) {
            switch (random.nextInt(4)) {
                case 0 -> array.remove(Integer.parseInt(last));
                case 1 -> array.add(array.get(Integer.parseInt(last)).deepCopy());
                default -> array.set(Integer.parseInt(last), value);
            }
        }
    }
}
