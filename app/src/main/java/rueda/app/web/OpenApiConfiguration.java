package rueda.app.web;

import io.swagger.v3.oas.models.info.Info;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The description of the interface, from which the page's types are made: every property is there unless named here. */
@Configuration
class OpenApiConfiguration {

    private static final Map<String, Set<String>> MAY_BE_NULL = Map.ofEntries(
            Map.entry("Expectation", Set.of("after", "position", "tolerance", "within", "stays", "quantity", "limit")),
            Map.entry("Verdict", Set.of("limit", "measured", "room", "cause", "order", "mend")),
            Map.entry("RunView", Set.of("stopped")),
            Map.entry("State", Set.of("fault")),
            Map.entry("AxisState", Set.of("probe1", "probe2")),
            Map.entry("Finding", Set.of("mend")),
            Map.entry("Change", Set.of("value")),
            Map.entry("HomingAnswer", Set.of("edge")),
            Map.entry("TakeControl", Set.of("monitoringSeconds")),
            Map.entry("HandOrder", Set.of("value", "fast", "terminal", "speedLimit")),
            Map.entry("IdentificationProgress", Set.of("answer")),
            Map.entry("StepAnswer", Set.of("settled", "inPosition")),
            Map.entry("Check", Set.of("mend")),
            Map.entry("ValueQuestion", Set.of("value", "raw")),
            Map.entry("TagTablePreview", Set.of("csv")),
            Map.entry("ComparisonQuestion", Set.of("columns", "order")),
            Map.entry("WriteQuestion", Set.of("image", "interruptedAfter")),
            Map.entry("HandAnswer", Set.of("refusal")),
            Map.entry("Start", Set.of("axis", "running")),
            Map.entry("ProfileQuestion", Set.of("startVelocity", "endVelocity", "maxDeceleration", "maxJerk")));

    @Bean
    OpenApiCustomizer everythingRequired() {
        return api -> {
            api.setInfo(new Info().title("Rueda").version("0.1.0").description("Servo axes on a fieldbus: configured, run and proven."));
            api.setServers(null);
            api.getComponents().getSchemas().forEach((name, schema) -> require(name, schema));
        };
    }

    private static void require(String name, io.swagger.v3.oas.models.media.Schema<?> schema) {
        if (schema.getProperties() != null) {
            Set<String> optional = MAY_BE_NULL.getOrDefault(name, Set.of());
            List<String> required = schema.getProperties().keySet().stream().filter(p -> !optional.contains(p)).sorted().toList();
            schema.setRequired(required);
        }
    }
}
