package rueda.advice;

import java.util.List;

/** What one stage gives for one axis. @param figures consequences  @param findings remarks */
public record Advice(List<Figure> figures, List<Finding> findings) {
    public Advice {
        figures = List.copyOf(figures);
        findings = List.copyOf(findings);
    }
}
