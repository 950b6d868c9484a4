package dev.paseo.service.web;

import dev.paseo.core.access.Person;
import io.swagger.v3.oas.annotations.Hidden;
import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import java.util.List;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springdoc.core.utils.SpringDocUtils;
import org.springframework.context.ApplicationContext;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.web.bind.annotation.RestController;

/** The API's description, served at /api/openapi.json. */
@Configuration
class ApiDescription {

    static {
        SpringDocUtils.getConfig().addRequestWrapperToIgnore(Person.class);
    }

    @Bean
    OpenAPI description() {
        return new OpenAPI().info(new Info().title("Paseo").version("1")
                .description("Builds once, keeps the exact bytes, and promotes them. Errors are problem details (RFC 9457); "
                        + "times are RFC 3339 in UTC; sizes are bytes; digests are SHA-256 in hexadecimal."));
    }

    /** A record's fields are always there, but for those that may be empty. */
    @Bean
    OpenApiCustomizer requiredFields(ApplicationContext context) {
        return api -> {
            List<Object> described = context.getBeansWithAnnotation(RestController.class).values().stream()
                    .filter(controller -> !controller.getClass().isAnnotationPresent(Hidden.class)).toList();
            RequiredFields fields = new RequiredFields(described);
            api.getComponents().getSchemas().forEach((name, schema) -> schema.setRequired(fields.of(name).orElse(null)));
        };
    }
}
