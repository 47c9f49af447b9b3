package rueda.app.web;

import java.nio.charset.StandardCharsets;
import org.springframework.http.ContentDisposition;

/** Names of files that are taken out. */
public final class Downloads {

    private Downloads() {
    }

    /**
     * The Content-Disposition header (RFC 6266) of a file. What no file system takes, or a name that could be read as a path or an option,
     * becomes a hyphen; other letters stay.
     */
    public static String named(String name) {
        String safe = name.replaceAll("[\\p{Cntrl}\\p{Cs}\\\\/:*?\"<>|;%\u202A-\u202E\u2066-\u2069]+", "-").replaceAll("^[-. ]+|[ .]+$", "").strip();
        String shortened = safe.length() > 120 ? safe.substring(0, 100) + safe.substring(safe.length() - 20) : safe;
        return ContentDisposition.attachment().filename(shortened.isEmpty() ? "file" : shortened, StandardCharsets.UTF_8).build().toString();
    }
}
