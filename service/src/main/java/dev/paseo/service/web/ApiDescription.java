package dev.paseo.service.web;

import dev.paseo.core.access.Person;
import io.swagger.v3.oas.annotations.Hidden;
import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.Operation;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.media.Schema;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
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
                .description(
                        "Builds once, keeps the exact bytes, and promotes them. Errors are problem details (RFC 9457); "
                                + "times are RFC 3339 in UTC; sizes are bytes; digests are SHA-256 in hexadecimal."));
    }

    /** A record's fields are always there, but for those that may be empty. */
    @Bean
    OpenApiCustomizer requiredFields(ApplicationContext context) {
        return api -> {
            List<Object> described = context.getBeansWithAnnotation(RestController.class).values().stream()
                    .filter(controller -> !controller.getClass().isAnnotationPresent(Hidden.class)).toList();
            RequiredFields fields = new RequiredFields(described);
            api.getComponents().getSchemas()
                    .forEach((name, schema) -> schema.setRequired(fields.of(name).orElse(null)));
        };
    }

    /** What is asked of every field that comes in, where its record says nothing else; see {@link FieldRules}. */
    @Bean
    OpenApiCustomizer rulesOfFields() {
        return api -> {
            Map<String, Schema> schemas = api.getComponents().getSchemas();
            Set<String> taken = new HashSet<>();
            api.getPaths().values().stream().flatMap(path -> path.readOperations().stream())
                    .map(Operation::getRequestBody).filter(Objects::nonNull)
                    .flatMap(body -> body.getContent().values().stream())
                    .forEach(content -> reach(content.getSchema(), schemas, taken));
            taken.forEach(name -> fields(schemas.get(name)).forEach(ApiDescription::rule));
        };
    }

    private static Collection<Schema<?>> fields(Schema<?> schema) {
        return schema.getProperties() == null ? List.of()
                : schema.getProperties().values().stream().<Schema<?>>map(each -> each).toList();
    }

    /** The names of all schemas that a body is made of. */
    private static void reach(Schema<?> schema, Map<String, Schema> schemas, Set<String> taken) {
        if (schema.get$ref() != null) {
            String name = schema.get$ref().substring(schema.get$ref().lastIndexOf('/') + 1);
            if (taken.add(name)) {
                fields(schemas.get(name)).forEach(field -> reach(field, schemas, taken));
            }
        } else if (schema.getItems() != null) {
            reach(schema.getItems(), schemas, taken);
        }
    }

    private static void rule(Schema<?> field) {
        boolean text = field.getTypes() != null && field.getTypes().contains("string") && field.getEnum() == null
                && field.getFormat() == null;
        if (text && field.getMaxLength() == null) {
            field.setMaxLength(FieldRules.LONGEST_TEXT);
        }
        if (field.getTypes() != null && field.getTypes().contains("array")) {
            field.setMaxItems(FieldRules.MOST_ENTRIES);
            rule(field.getItems());
        }
    }
}
