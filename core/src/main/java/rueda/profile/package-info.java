/**
 * Time-optimal motion profiles with limited speed, acceleration and, when asked, jerk.
 *
 * <p>A profile is a row of segments of constant jerk. A change of speed by Δv takes the shortest time
 * {@code T(Δv) = Δv/a + a/j} when {@code Δv ≥ a²/j}, else {@code 2·√(Δv/j)}, and covers
 * {@code (v₀ + v₁)/2 · T}: its speed curve is point-symmetric. A whole motion is a change from the start speed
 * to a peak speed, a cruise, and a change from the peak to the end speed. A change that begins with an acceleration a₀ goes on from it: its
 * acceleration rises to {@code √(j·Δv + a₀²/2)}, at most the limit, and falls to zero (Biagiotti &amp; Melchiorri,
 * <i>Trajectory Planning for Automatic Machines and Robots</i>, Springer 2008, chapter 3).
 */
package rueda.profile;
