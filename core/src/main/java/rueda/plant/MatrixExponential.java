package rueda.plant;

/** exp(A·t) of a small matrix: Taylor series after scaling, then squaring (Moler &amp; Van Loan, SIAM Review 45, 2003, method 3). */
final class MatrixExponential {

    private static final int TERMS = 20;

    private MatrixExponential() {
    }

    /** @param a square matrix  @param t s */
    static double[][] of(double[][] a, double t) {
        int n = a.length;
        double norm = 0;
        for (double[] row : a) {
            double sum = 0;
            for (double value : row) {
                sum += Math.abs(value * t);
            }
            norm = Math.max(norm, sum);
        }
        int squarings = Math.max(0, Math.getExponent(norm) + 2);
        double scaled = t / Math.scalb(1.0, squarings);
        double[][] result = identity(n);
        double[][] term = identity(n);
        for (int k = 1; k <= TERMS; k++) {
            term = product(term, a, scaled / k);
            for (int i = 0; i < n; i++) {
                for (int j = 0; j < n; j++) {
                    result[i][j] += term[i][j];
                }
            }
        }
        for (int k = 0; k < squarings; k++) {
            result = product(result, result, 1);
        }
        return result;
    }

    private static double[][] identity(int n) {
        double[][] one = new double[n][n];
        for (int i = 0; i < n; i++) {
            one[i][i] = 1;
        }
        return one;
    }

    private static double[][] product(double[][] a, double[][] b, double factor) {
        int n = a.length;
        double[][] c = new double[n][n];
        for (int i = 0; i < n; i++) {
            for (int k = 0; k < n; k++) {
                double value = a[i][k] * factor;
                for (int j = 0; j < n; j++) {
                    c[i][j] += value * b[k][j];
                }
            }
        }
        return c;
    }
}
