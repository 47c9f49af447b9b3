package rueda.app.live;

import java.util.UUID;

/**
 * The right to move axes by hand. One page holds it and renews it; when renewal stops for the monitoring time, it ends.
 * Thread-safe.
 */
final class ControlLease {

    private static final double LEAST = 0.2;
    private static final double MOST = 10;

    private String holder;
    private long monitoringNanos;
    private long renewedAt;

    static boolean allows(double monitoringSeconds) {
        return monitoringSeconds >= LEAST && monitoringSeconds <= MOST;
    }

    /** @param now {@link System#nanoTime()}  @return the holder's key, or null when another holds it */
    synchronized String take(double monitoringSeconds, long now) {
        if (held(now)) {
            return null;
        }
        holder = UUID.randomUUID().toString();
        monitoringNanos = (long) (monitoringSeconds * 1e9);
        renewedAt = now;
        return holder;
    }

    /** @param key may be null  @return false when the key does not hold control */
    synchronized boolean renew(String key, long now) {
        if (!held(now) || !holder.equals(key)) {
            return false;
        }
        renewedAt = now;
        return true;
    }

    synchronized boolean release(String key) {
        boolean mine = holder != null && holder.equals(key);
        if (mine) {
            holder = null;
        }
        return mine;
    }

    /** Ends a lease that has not been renewed in time. @return true when this call ended it */
    synchronized boolean expire(long now) {
        if (holder != null && now - renewedAt > monitoringNanos) {
            holder = null;
            return true;
        }
        return false;
    }

    synchronized boolean held(long now) {
        return holder != null && now - renewedAt <= monitoringNanos;
    }
}
