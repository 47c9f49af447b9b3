package rueda.machine;

import java.lang.reflect.RecordComponent;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;

/**
 * What holds for every text of a document, wherever it stands: characters that can be shown, stored and sent, and a length. Part of
 * {@link MachineRules}. A new text of the document is checked without a line here.
 */
final class TextRules {

    /** Longer texts have a rule of their own; this keeps any other from growing without bound. */
    private static final int LONGEST = 1000;
    /** As many refusals as help. */
    private static final int MOST_FAULTS = 50;

    private final List<EntryFault> faults;

    TextRules(List<EntryFault> faults) {
        this.faults = faults;
    }

    /** @param sound a document in which nothing is refused: axes of it are not looked at again; null for none */
    void check(Machine machine, Machine sound) {
        look(machine.name(), "/name");
        look(machine.bus(), "/bus");
        look(machine.plc(), "/plc");
        look(machine.proofs(), "/proofs");
        for (int i = 0; i < machine.axes().size(); i++) {
            if (!MachineRules.same(sound, i, machine.axes().get(i))) {
                look(machine.axes().get(i), "/axes/" + i);
            }
        }
    }

    /** Asking a class for its components copies them each time; a list of moves asks thousands of times. */
    private static final ClassValue<RecordComponent[]> COMPONENTS = new ClassValue<>() {
        @Override
        protected RecordComponent[] computeValue(Class<?> type) {
            return Arrays.stream(type.getRecordComponents()).filter(component -> !component.getType().isPrimitive() && !component.getType().isEnum()).toArray(RecordComponent[]::new);
        }
    };

    private void look(Object value, String pointer) {
        if (faults.size() >= MOST_FAULTS) {
            return;
        }
        if (value instanceof List<?> list) {
            for (int i = 0; i < list.size(); i++) {
                look(list.get(i), pointer + "/" + i);
            }
        } else if (value instanceof Record record) {
            for (RecordComponent component : COMPONENTS.get(record.getClass())) {
                look(read(component, record), pointer + "/" + component.getName());
            }
        } else if (value instanceof String text) {
            text(pointer, text);
        }
    }

    private void text(String pointer, String text) {
        String name = pointer.substring(pointer.lastIndexOf('/') + 1);
        boolean program = pointer.startsWith("/plc/files/") && name.equals("source");
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            boolean line = program && (c == '\n' || c == '\r' || c == '\t' || c == '\f');
            boolean alone = Character.isHighSurrogate(c) ? i + 1 == text.length() || !Character.isLowSurrogate(text.charAt(i + 1)) : Character.isLowSurrogate(c) && (i == 0 || !Character.isHighSurrogate(text.charAt(i - 1)));
            if (Character.isISOControl(c) && !line || alone) {
                faults.add(new EntryFault(pointer, label(name), String.format(Locale.ROOT, "character %d is %04Xh", i + 1, (int) c), "characters that can be shown" + (program ? ", line ends and tabs" : ""), "type the text anew"));
                return;
            }
        }
        if (!program && text.length() > LONGEST) {
            faults.add(new EntryFault(pointer, label(name), text.length() + " characters", "up to " + LONGEST + " characters", "shorten it"));
        }
    }

    private static String label(String name) {
        return name.substring(0, 1).toUpperCase(Locale.ROOT) + name.substring(1);
    }

    private static Object read(RecordComponent component, Record owner) {
        try {
            return component.getAccessor().invoke(owner);
        } catch (ReflectiveOperationException impossible) {
            throw new IllegalStateException(impossible);
        }
    }
}
