package rueda.plc.run;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneOffset;

/**
 * Durations and points in time, all in whole nanoseconds: TIME as it is, a time of day from midnight, dates from the start of 1970 (IEC
 * 61131-3, 6.6.2.5.12, functions of time data types). A date outside of what 64 bits hold stops the task.
 */
public final class Times {

    public static final long NANOS_PER_DAY = 86_400_000_000_000L;

    /** The days that a DATE or a date and time can hold: nanoseconds from 1970 in 64 bits. */
    public static final LocalDate FIRST_DAY = LocalDate.of(1677, 9, 22);
    public static final LocalDate LAST_DAY = LocalDate.of(2262, 4, 10);

    private Times() {
    }

    static LocalDateTime moment(long nanos) {
        return LocalDateTime.ofEpochSecond(Math.floorDiv(nanos, 1_000_000_000L), (int) Math.floorMod(nanos, 1_000_000_000L), ZoneOffset.UTC);
    }

    static LocalTime timeOfDayOf(long nanos) {
        return LocalTime.ofNanoOfDay(Math.floorMod(nanos, NANOS_PER_DAY));
    }

    /** Midnight of the day. */
    public static long day(long nanos) {
        return Math.floorDiv(nanos, NANOS_PER_DAY) * NANOS_PER_DAY;
    }

    /** Since midnight. */
    public static long timeOfDay(long nanos) {
        return Math.floorMod(nanos, NANOS_PER_DAY);
    }

    /** A time of day goes on at midnight. */
    public static long laterOnTheDay(long timeOfDay, long by) {
        return Math.floorMod(timeOfDay + by % NANOS_PER_DAY, NANOS_PER_DAY);
    }

    public static long earlierOnTheDay(long timeOfDay, long by) {
        return Math.floorMod(timeOfDay - by % NANOS_PER_DAY, NANOS_PER_DAY);
    }

    public static long later(long moment, long by) {
        long sum = moment + by;
        if (((moment ^ sum) & (by ^ sum)) < 0) {
            throw new ProgramFault("The date leaves what can be held: " + FIRST_DAY + " to " + LAST_DAY + ".");
        }
        return sum;
    }

    public static long earlier(long moment, long by) {
        long difference = moment - by;
        if (((moment ^ by) & (moment ^ difference)) < 0) {
            throw new ProgramFault("The date leaves what can be held: " + FIRST_DAY + " to " + LAST_DAY + ".");
        }
        return difference;
    }

    /** Rounded to the nearest nanosecond. */
    public static long multiplied(long duration, double by) {
        return Math.round(duration * by);
    }

    public static long divided(long duration, double by) {
        if (by == 0) {
            throw new ProgramFault("Division by zero.");
        }
        return Math.round(duration / by);
    }

    // ---- put together and taken apart

    public static long date(long year, long month, long day) {
        try {
            LocalDate date = LocalDate.of((int) year, (int) month, (int) day);
            if (!date.isBefore(FIRST_DAY) && !date.isAfter(LAST_DAY)) {
                return date.toEpochDay() * NANOS_PER_DAY;
            }
        } catch (DateTimeException none) {
            // Said below.
        }
        throw new ProgramFault(year + "-" + month + "-" + day + " is no day that can be held: " + FIRST_DAY + " to " + LAST_DAY + ".");
    }

    public static long timeOfDay(long hour, long minute, long second, long millisecond) {
        if (hour < 0 || hour > 23 || minute < 0 || minute > 59 || second < 0 || second > 59 || millisecond < 0 || millisecond > 999) {
            throw new ProgramFault(hour + ":" + minute + ":" + second + " and " + millisecond + " ms is no time of day.");
        }
        return ((hour * 60 + minute) * 60 + second) * 1_000_000_000L + millisecond * 1_000_000L;
    }

    public static long year(long nanos) {
        return moment(nanos).getYear();
    }

    public static long month(long nanos) {
        return moment(nanos).getMonthValue();
    }

    public static long dayOfMonth(long nanos) {
        return moment(nanos).getDayOfMonth();
    }

    public static long hour(long nanos) {
        return timeOfDay(nanos) / 3_600_000_000_000L;
    }

    public static long minute(long nanos) {
        return timeOfDay(nanos) / 60_000_000_000L % 60;
    }

    public static long second(long nanos) {
        return timeOfDay(nanos) / 1_000_000_000L % 60;
    }

    public static long millisecond(long nanos) {
        return timeOfDay(nanos) / 1_000_000L % 1000;
    }

    /** 0 for Sunday to 6 for Saturday (IEC 61131-3, DAY_OF_WEEK; from memory). */
    public static long dayOfWeek(long nanos) {
        return moment(nanos).getDayOfWeek().getValue() % 7;
    }
}
