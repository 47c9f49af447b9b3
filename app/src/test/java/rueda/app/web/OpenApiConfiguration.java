package rueda.app.web;

import io.swagger.v3.oas.models.info.Info;
import java.util.List;
import java.util.Set;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import rueda.app.json.Completeness;

/** The description of the interface, from which the page's types are made: every property is there unless named here. */
@Configuration
class OpenApiConfiguration {

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
            Set<String> optional = Completeness.MAY_BE_NULL.getOrDefault(name, Set.of());
            List<String> required = schema.getProperties().keySet().stream().filter(p -> !optional.contains(p)).sorted().toList();
            schema.setRequired(required);
        }
    }
}
