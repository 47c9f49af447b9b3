package rueda.proof.learn;

import java.util.List;

/**
 * What has been learned.
 *
 * @param axis    name of the axis
 * @param values  one for each unknown that was asked for and can be told
 * @param fits    how near the bench came, signal by signal
 * @param shift   s that are added to the times of the recording so that it lies over the run
 * @param runs    that were made for it
 * @param remarks what could not be told, and why
 */
public record Learned(String axis, List<LearnedValue> values, List<SignalFit> fits, double shift, int runs, List<String> remarks) {

    /**
     * A value.
     *
     * @param of      what it is
     * @param words   what it is called of this axis
     * @param unit    of the values
     * @param before  as the document says
     * @param found   as the recording says
     * @param doubt   three standard deviations
     * @param sure    the doubt is small beside what it is measured by: it can be taken over
     * @param pointer JSON pointer in the axis, empty for what the document does not have
     */
    public record LearnedValue(Unknown of, String words, String unit, double before, double found, double doubt, boolean sure, String pointer) {
    }

    /** How a signal of the recording differs from the bench. @param before root of the mean square with the document's values  @param after with those that were found  @param samples that count */
    public record SignalFit(String signal, String unit, double before, double after, int samples) {
    }
}
