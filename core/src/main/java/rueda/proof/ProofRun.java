package rueda.proof;

import java.util.List;
import rueda.bench.Bench;

/**
 * A finished run.
 *
 * @param verdicts     one per expectation, in order
 * @param duration     machine time, s
 * @param stopped      why the program stopped before its end, or null
 * @param stoppedFile  text in which it stopped, empty when it did not
 * @param stoppedLine  line in which it stopped, 0 when it did not
 * @param figures      commanded against made
 * @param happened     what the script made happen, in order
 * @param bench        the bench after the run, with its recording
 */
public record ProofRun(List<Verdict> verdicts, double duration, String stopped, String stoppedFile, int stoppedLine, Figures figures, List<Happened> happened, Bench bench) {

    ProofRun withVerdicts(List<Verdict> changed) {
        return new ProofRun(changed, duration, stopped, stoppedFile, stoppedLine, figures, happened, bench);
    }

    public boolean holds() {
        return stopped == null && verdicts.stream().allMatch(Verdict::holds);
    }

    /**
     * Motion commanded against motion made, over all axes.
     *
     * @param moves      moves ordered
     * @param theory     planned time of all moves, s
     * @param standing   share of the run in which nothing moved, s
     * @param peakTorque highest torque as a share of the motor's peak
     * @param rmsTorque  effective torque as a share of the motor's rated torque
     */
    public record Figures(int moves, double theory, double standing, double peakTorque, double rmsTorque) {
    }
}
