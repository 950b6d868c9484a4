package dev.paseo.service.web;

import dev.paseo.core.access.Person;
import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.media.Schema;
import java.util.ArrayList;
import java.util.Map;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springdoc.core.utils.SpringDocUtils;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

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
    OpenApiCustomizer requiredFields() {
        return api -> {
            Map<String, Schema> schemas = api.getComponents().getSchemas();
            schemas.forEach((name, schema) -> {
                if (name.endsWith("Request") || name.startsWith("New") || schema.getProperties() == null) {
                    return;
                }
                schema.setRequired(new ArrayList<String>(((Map<String, Schema>) schema.getProperties()).keySet()));
            });
        };
    }
}
