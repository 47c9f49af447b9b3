package rueda.format;

import java.util.List;

/**
 * What a reader made of a file.
 *
 * @param value   what it holds
 * @param remarks what was left out because it was not understood, with its place
 */
public record Reading<T>(T value, List<String> remarks) {
    public Reading {
        remarks = List.copyOf(remarks);
    }
}
