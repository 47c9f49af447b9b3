/**
 * What the bench learns from a recording of the real machine: how heavy the load is, how it rubs, how steep its line is, how stiff it hangs, how late its signals come.
 *
 * <p>The proof is run on stands with other values until its signals lie over the recorded ones: the output error in closed loop (Gautier, Janot, Vandanjon: A New
 * Closed-Loop Output Error Method for Parameter Identification of Robot Dynamics, IEEE Transactions on Control Systems Technology 21(2), 2013, from memory). With θ the
 * values, y the recorded samples and ŷ(θ) those of the bench at the same times,
 * <pre>  V(θ) = Σ_s 1/σ_s² Σ_k (y_s(t_k) − ŷ_s(t_k + δ; θ))² </pre>
 * is made least by the method of Levenberg and Marquardt; σ_s, the standard deviation of what a signal differs in the end, is estimated again and again. The covariance of θ
 * is (JᵀJ)⁻¹ of the weighted residuals, enlarged by how far neighbouring residuals are alike (Ljung: System Identification, 2nd edition, 1999, chapter 9: what is not
 * white makes a value less sure).
 */
package rueda.proof.learn;
