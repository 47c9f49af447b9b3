package rueda.profile;

import java.util.ArrayList;
import java.util.List;
import org.hipparchus.optim.linear.LinearConstraint;
import org.hipparchus.optim.linear.LinearConstraintSet;
import org.hipparchus.optim.linear.LinearObjectiveFunction;
import org.hipparchus.optim.linear.NonNegativeConstraint;
import org.hipparchus.optim.linear.Relationship;
import org.hipparchus.optim.linear.SimplexSolver;
import org.hipparchus.optim.nonlinear.scalar.GoalType;

/** How far a motion of limited velocity, acceleration and jerk can come in a time: jerk constant on each step of a grid. */
final class FarthestReach {

    private FarthestReach() {
    }

    static double within(double time, int steps, double v0, double v1, double vmax, double amax, double dmax, double jmax) {
        double h = time / steps;
        List<LinearConstraint> constraints = new ArrayList<>();
        double[] a = new double[steps];
        double[] v = new double[steps];
        double[] x = new double[steps];
        double vFree = v0;
        double xFree = 0;
        for (int k = 0; k < steps; k++) {
            xFree += h * vFree;
            for (int i = 0; i < steps; i++) {
                double own = i == k ? 1 : 0;
                x[i] += h * v[i] + h * h / 2 * a[i] + own * h * h * h / 6;
                v[i] += h * a[i] + own * h * h / 2;
                a[i] += own * h;
            }
            if (k < steps - 1) {
                constraints.add(new LinearConstraint(a.clone(), Relationship.LEQ, amax));
                constraints.add(new LinearConstraint(a.clone(), Relationship.GEQ, -dmax));
                constraints.add(new LinearConstraint(v.clone(), Relationship.LEQ, vmax - vFree));
                constraints.add(new LinearConstraint(v.clone(), Relationship.GEQ, -vmax - vFree));
            }
        }
        constraints.add(new LinearConstraint(a.clone(), Relationship.EQ, 0));
        constraints.add(new LinearConstraint(v.clone(), Relationship.EQ, v1 - vFree));
        for (int i = 0; i < steps; i++) {
            double[] one = new double[steps];
            one[i] = 1;
            constraints.add(new LinearConstraint(one, Relationship.LEQ, jmax));
            constraints.add(new LinearConstraint(one, Relationship.GEQ, -jmax));
        }
        try {
            return new SimplexSolver(1e-7, 10).optimize(new LinearObjectiveFunction(x, xFree), new LinearConstraintSet(constraints),
                    GoalType.MAXIMIZE, new NonNegativeConstraint(false)).getValue();
        } catch (org.hipparchus.exception.MathIllegalStateException noMotion) {
            return Double.NEGATIVE_INFINITY;
        }
    }
}
