package rueda.app;

import org.springframework.boot.autoconfigure.SpringBootApplication;
import picocli.CommandLine;

/** The one program: {@code serve} (the default) and {@code prove FILE}. */
@SpringBootApplication
public class RuedaApplication {

    public static void main(String[] arguments) {
        int code = new CommandLine(new Commands()).execute(arguments);
        if (code != Commands.KEEPS_RUNNING) {
            System.exit(code);
        }
    }
}
