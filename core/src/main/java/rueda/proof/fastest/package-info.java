/**
 * How fast a machine may go and still hold everything: numbers of the program, gains, speeds, accelerations and rests are changed within bounds until the time that counts is
 * as short as it gets, while every expectation of a proof holds under all its conditions.
 *
 * <p>A compass search (Kolda, Lewis, Torczon: Optimization by Direct Search, SIAM Review 45(3), 2003): from the best point so far each number is tried a step up and a step
 * down, all at once on all processors; where none is better, the steps are halved. Better is first whatever lacks less room, and among those that hold everything whatever is
 * shorter (Deb: An efficient constraint handling method, 2000): no weight has to be found between the two. The same whatever the number of threads.
 */
package rueda.proof.fastest;
