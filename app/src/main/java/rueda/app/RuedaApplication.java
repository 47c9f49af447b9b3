package rueda.app;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;

/** The server: what Spring starts for {@link Commands}. */
@SpringBootApplication
public class RuedaApplication {

    public static void main(String[] arguments) {
        SpringApplication.run(RuedaApplication.class, arguments);
    }
}
