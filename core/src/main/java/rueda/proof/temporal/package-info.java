/**
 * Sentences about what happens over time, judged over a recording with a number: signal temporal logic (Maler and Nickovic, <i>Monitoring
 * Temporal Properties of Continuous Signals</i>, 2004) with its quantitative semantics (Donzé and Maler, <i>Robust Satisfaction of Temporal Logic
 * over Real-Valued Signals</i>, 2010). The number is called room here.
 *
 * <pre>
 *   ρ(f ≥ c, t)        = f(t) − c                                 ρ(¬φ, t) = −ρ(φ, t)
 *   ρ(φ ∧ ψ, t)        = min(ρ(φ, t), ρ(ψ, t))                    ρ(φ ∨ ψ, t) = max(ρ(φ, t), ρ(ψ, t))
 *   ρ(□[a,b] φ, t)     = min over t' in [t+a, t+b] of ρ(φ, t')    ρ(◇[a,b] φ, t) = max over the same
 *   ρ(φ U[a,b] ψ, t)   = max over t' in [t+a, t+b] of min(ρ(ψ, t'), min over t'' in [t, t') of ρ(φ, t''))
 * </pre>
 *
 * <p>Time goes in samples; a time is rounded to the nearest one. A sentence is judged at the instants whose whole future, as far as the sentence
 * looks, has been recorded; what has no end (always, at some time, until) looks over all of those. A bit, and an event, have room without bounds on either side.
 * Room is never 0: where two values are equal, the smallest number there is stands for it, positive where the comparison holds, so that room is
 * positive exactly when the sentence holds.
 *
 * <p>Costs: each operator takes time that grows with the samples, whatever its window (sliding minima by a queue of candidates: Lemire,
 * <i>Streaming maximum-minimum filter</i>, 2006), and 8 bytes a sample while the sentence is judged.
 */
package rueda.proof.temporal;
