package rueda.app.web;

import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.RequestDispatcher;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.Writer;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.core.StandardHost;
import org.apache.catalina.valves.ErrorReportValve;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.boot.webmvc.error.ErrorController;
import org.springframework.context.annotation.Bean;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Errors that reach no handler of ours, in the servlet container or before it, are problem documents too. */
@Hidden
@RestController
class LastErrors implements ErrorController {

    @RequestMapping("/error")
    void error(HttpServletRequest request, HttpServletResponse response) throws IOException {
        Object code = request.getAttribute(RequestDispatcher.ERROR_STATUS_CODE);
        HttpStatus status = code instanceof Integer number ? HttpStatus.resolve(number) : HttpStatus.NOT_FOUND;
        HttpStatus shown = status == null ? HttpStatus.INTERNAL_SERVER_ERROR : status;
        Problems.write(response, shown, shown.getReasonPhrase(), words(shown.value()));
    }

    private static String words(int status) {
        return status == 404 ? "There is nothing at this address." : status < 500 ? "This request cannot be read as it is." : "Rueda made a mistake with this request; the reason is in the server's output.";
    }

    @Bean
    static WebServerFactoryCustomizer<TomcatServletWebServerFactory> containerErrors() {
        return factory -> factory.addContextCustomizers(context -> {
            if (context.getParent() instanceof StandardHost host) {
                host.setErrorReportValveClass(ProblemReport.class.getName());
            }
        });
    }

    /** What the container itself refuses, such as an address with characters that stand in none. */
    public static final class ProblemReport extends ErrorReportValve {
        @Override
        protected void report(Request request, Response response, Throwable failure) {
            if (response.getStatus() < 400 || response.getContentWritten() > 0 || !response.setErrorReported()) {
                return;
            }
            try {
                response.setContentType("application/problem+json");
                response.setCharacterEncoding("UTF-8");
                Writer writer = response.getReporter();
                if (writer != null) {
                    writer.write(Problems.json(response.getStatus(), "Request refused", words(response.getStatus())));
                    response.finishResponse();
                }
            } catch (IOException gone) {
                // There is no one to answer.
            }
        }
    }
}
