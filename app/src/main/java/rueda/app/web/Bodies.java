package rueda.app.web;

import java.lang.reflect.Type;
import java.util.List;
import org.springframework.boot.jackson.autoconfigure.JsonMapperBuilderCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.core.MethodParameter;
import org.springframework.http.HttpInputMessage;
import org.springframework.http.converter.HttpMessageConverter;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.servlet.mvc.method.annotation.RequestBodyAdviceAdapter;
import rueda.app.json.Completeness;
import rueda.app.json.StrictJson;
import rueda.app.web.Refusals.RefusedEntries;
import rueda.machine.EntryFault;

/** Bodies of requests are read strictly, and are complete before a handler sees them. */
@RestControllerAdvice
class Bodies extends RequestBodyAdviceAdapter {

    @Bean
    static JsonMapperBuilderCustomizer strictly() {
        return StrictJson::strict;
    }

    @Override
    public boolean supports(MethodParameter parameter, Type type, Class<? extends HttpMessageConverter<?>> converter) {
        return true;
    }

    @Override
    public Object afterBodyRead(Object body, HttpInputMessage message, MethodParameter parameter, Type type, Class<? extends HttpMessageConverter<?>> converter) {
        List<EntryFault> missing = Completeness.missing(body);
        if (!missing.isEmpty()) {
            throw new RefusedEntries(missing);
        }
        return body;
    }
}
