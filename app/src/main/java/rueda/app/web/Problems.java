package rueda.app.web;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import rueda.app.json.StrictJson;
import rueda.machine.EntryFault;
import tools.jackson.databind.json.JsonMapper;

/** Problem documents (RFC 9457) where no handler is reached. */
final class Problems {

    private static final JsonMapper MAPPER = StrictJson.strict(JsonMapper.builder()).build();

    private Problems() {
    }

    static void write(HttpServletResponse response, HttpStatus status, String title, String detail, EntryFault... faults) throws IOException {
        response.setStatus(status.value());
        response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
        response.getOutputStream().write(json(status.value(), title, detail, faults).getBytes(StandardCharsets.UTF_8));
    }

    static String json(int status, String title, String detail, EntryFault... faults) {
        Map<String, Object> problem = new LinkedHashMap<>();
        problem.put("title", title);
        problem.put("status", status);
        problem.put("detail", detail);
        if (faults.length > 0) {
            problem.put("faults", List.of(faults));
        }
        return MAPPER.writeValueAsString(problem);
    }
}
