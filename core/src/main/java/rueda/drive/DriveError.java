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
        for (DriveFault fault : DriveFault.values()) {
            if (fault.code() == code) {
                return fault.words();
            }
        }
        return code == 0 ? "no error" : "see the drive's error code";
    }
}
