package rueda.format;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.Locale;

/** Bytes as text, and text as numbers, for formats that are lines of text. */
public final class Text {

    /** Files larger than this are refused, bytes. */
    public static final int MOST_BYTES = 32 << 20;

    private Text() {
    }

    /** Refuses a file that is too large. */
    public static void bounded(byte[] file) {
        if (file.length > MOST_BYTES) {
            throw new UnreadableFile("File", file.length / (1 << 20) + " MB", "up to " + MOST_BYTES / (1 << 20) + " MB", "take what is needed out of it");
        }
        if (file.length == 0) {
            throw new UnreadableFile("File", "no bytes", "a file with content", "choose another file");
        }
    }

    /** UTF-8 with or without mark; files that are not, and hold no control characters, are taken as ISO 8859-1. */
    public static String decoded(byte[] file) {
        bounded(file);
        if (file.length > 1 && ((file[0] & 0xFF) == 0xFF && (file[1] & 0xFF) == 0xFE || (file[0] & 0xFF) == 0xFE && (file[1] & 0xFF) == 0xFF)) {
            return checked(file, StandardCharsets.UTF_16);
        }
        String text;
        try {
            text = strict(file, StandardCharsets.UTF_8);
        } catch (CharacterCodingException notUtf8) {
            text = new String(file, StandardCharsets.ISO_8859_1);
        }
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c < ' ' && c != '\t' && c != '\n' && c != '\r' && c != '\f') {
                throw new UnreadableFile("Character " + (i + 1), String.format(Locale.ROOT, "control character %02Xh", (int) c), "text in UTF-8, UTF-16 with a mark, or ISO 8859-1", "save the file as text in UTF-8");
            }
        }
        return text.startsWith("\uFEFF") ? text.substring(1) : text;
    }

    private static String checked(byte[] file, Charset charset) {
        try {
            return strict(file, charset);
        } catch (CharacterCodingException broken) {
            throw new UnreadableFile("File", "bytes that are no " + charset, "text in one encoding", "save the file as text in UTF-8");
        }
    }

    private static String strict(byte[] file, Charset charset) throws CharacterCodingException {
        return charset.newDecoder().onMalformedInput(CodingErrorAction.REPORT).onUnmappableCharacter(CodingErrorAction.REPORT).decode(ByteBuffer.wrap(file)).toString();
    }

    /**
     * A whole number as CiA 306 writes it (clause 4.2, from memory): 0x begins a hexadecimal one, 0 an octal one.
     *
     * @throws UnreadableFile when it is none, or not in the range
     */
    public static long octalOrWhole(String place, String text, long low, long high) {
        String digits = text == null ? "" : text.strip();
        if (!digits.matches("-?0[0-9]+")) {
            return whole(place, text, low, high);
        }
        if (!digits.matches("-?0[0-7]{1,21}")) {
            throw new UnreadableFile(place, text, "a whole number; one that begins with 0 is octal and has digits 0 to 7", "correct it");
        }
        return whole(place, Long.toString(Long.parseLong(digits, 8)), low, high);
    }

    /**
     * A whole number: decimal, or hexadecimal with 0x or #x.
     *
     * @throws UnreadableFile when it is none, or not in the range
     */
    public static long whole(String place, String text, long low, long high) {
        String digits = text == null ? "" : text.strip();
        long value;
        try {
            String lower = digits.toLowerCase(Locale.ROOT);
            if (lower.startsWith("0x") || lower.startsWith("#x")) {
                value = Long.parseUnsignedLong(lower.substring(2), 16);
            } else {
                value = Long.parseLong(lower);
            }
        } catch (NumberFormatException none) {
            throw new UnreadableFile(place, text, "a whole number, decimal or hexadecimal with 0x", "correct it");
        }
        if (value < low || value > high) {
            throw new UnreadableFile(place, text, low + " to " + high, "correct it");
        }
        return value;
    }
}
