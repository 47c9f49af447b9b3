package rueda.advice;

import java.util.ArrayList;
import java.util.List;
import rueda.advice.Finding.Mend;
import rueda.advice.Finding.Severity;
import rueda.machine.Axis;

/** What the advice of every stage is made of: one axis, and the figures and findings collected for it. */
public abstract class AxisAdvice {

    protected final Axis axis;
    /** JSON pointer of the axis in the document. */
    protected final String pointer;
    /** Symbol of the user unit. */
    protected final String unit;
    private final String stage;
    private final List<Figure> figures = new ArrayList<>();
    private final List<Finding> findings = new ArrayList<>();

    protected AxisAdvice(String stage, Axis axis, String pointer) {
        this.stage = stage;
        this.axis = axis;
        this.pointer = pointer;
        this.unit = axis.unit().symbol();
    }

    protected final void figure(String label, String value, String valueUnit, String formula) {
        figures.add(new Figure(label, value, valueUnit, formula));
    }

    protected final void finding(Severity severity, String title, String consequence, Mend mend) {
        findings.add(new Finding(stage, axis.name(), severity, title, consequence, mend));
    }

    protected final boolean nothingFound() {
        return findings.isEmpty();
    }

    protected final Advice advice() {
        return new Advice(figures, findings);
    }
}
