package rueda.bench;

import java.util.Arrays;

/** Contacts of the requests of a machine, two channels each, closed at rest, and the button that acknowledges. No allocation; not thread-safe. */
final class SafetyContacts {

    private final boolean[] first;
    private final boolean[] second;
    private boolean acknowledge;

    /** @param requests how many */
    SafetyContacts(int requests) {
        first = new boolean[requests];
        second = new boolean[requests];
        Arrays.fill(first, true);
        Arrays.fill(second, true);
    }

    void put(int request, boolean firstClosed, boolean secondClosed) {
        first[request] = firstClosed;
        second[request] = secondClosed;
    }

    void acknowledge(boolean pressed) {
        acknowledge = pressed;
    }

    boolean first(int request) {
        return first[request];
    }

    boolean second(int request) {
        return second[request];
    }

    boolean acknowledge() {
        return acknowledge;
    }
}
