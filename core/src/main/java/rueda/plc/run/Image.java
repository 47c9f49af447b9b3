package rueda.plc.run;

import java.util.Arrays;

/**
 * First values of cells that lie one behind the other.
 *
 * @param texts null where none of them is a text
 */
public record Image(long[] cells, String[] texts) {

    /** The same values so many times, one behind the other. */
    public Image times(int count) {
        long[] all = new long[cells.length * count];
        String[] allTexts = texts == null ? null : new String[all.length];
        for (int i = 0; i < count; i++) {
            System.arraycopy(cells, 0, all, i * cells.length, cells.length);
            if (texts != null) {
                System.arraycopy(texts, 0, allTexts, i * cells.length, cells.length);
            }
        }
        return new Image(all, allTexts);
    }

    /** Cells of 0, texts empty. */
    public static Image blank(int cells) {
        return new Image(new long[cells], null);
    }

    /** This one with another one put into it. */
    public Image with(int at, Image part) {
        long[] all = cells.clone();
        System.arraycopy(part.cells, 0, all, at, part.cells.length);
        String[] allTexts = texts == null ? null : texts.clone();
        if (part.texts != null) {
            if (allTexts == null) {
                allTexts = new String[all.length];
                Arrays.fill(allTexts, "");
            }
            System.arraycopy(part.texts, 0, allTexts, at, part.texts.length);
        }
        return new Image(all, allTexts);
    }

    /** Puts the values into memory. */
    void into(Frame frame, int to) {
        System.arraycopy(cells, 0, frame.memory, to, cells.length);
        if (texts != null) {
            System.arraycopy(texts, 0, frame.texts, to, texts.length);
        }
    }
}
