package rueda.drive;

/** Error codes of the drive (603Fh) in words. Codes below FF00h are those of CiA 301 and CiA 402, the others Rueda's. */
public final class DriveError {

    private DriveError() {
    }

    /** @param code 603Fh; 0 for no error */
    public static String words(int code) {
        for (HomingFailure failure : HomingFailure.values()) {
            if (failure.code() == code && code != 0) {
                return failure.words();
            }
        }
        return switch (code) {
            case 0 -> "no error";
            case Drive.ERROR_FOLLOWING -> "the following error left its window for too long";
            case Drive.ERROR_LIMIT_SWITCH -> "a limit switch was met in motion";
            case Drive.ERROR_LOAD_ENCODER -> "a line of the encoder on the load is broken";
            case Drive.ERROR_PARAMETERS -> "its parameters were written in part: finish or undo the writing";
            default -> "see the drive's error code";
        };
    }
}
