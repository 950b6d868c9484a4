package dev.paseo.service.web;

import dev.paseo.service.problem.Refusal;
import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.Operation;
import io.swagger.v3.oas.models.PathItem.HttpMethod;
import io.swagger.v3.oas.models.media.ArraySchema;
import io.swagger.v3.oas.models.media.Content;
import io.swagger.v3.oas.models.media.IntegerSchema;
import io.swagger.v3.oas.models.media.MediaType;
import io.swagger.v3.oas.models.media.ObjectSchema;
import io.swagger.v3.oas.models.media.Schema;
import io.swagger.v3.oas.models.media.StringSchema;
import io.swagger.v3.oas.models.responses.ApiResponse;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What each operation may answer beside what was wanted, and an example of what it is asked and answers. */
@Configuration
class OperationAnswers {

    private static final String PROBLEM = "ProblemDetails";

    /** Who asks these need not be signed in. */
    private static final Set<String> OPEN = Set.of("/api/v1/session", "/api/v1/tokens", "/api/v1/password-by-code",
            "/api/v1/sign-in-ways", "/api/v1/problems");

    /** Contents that can be read and are still not what they should be. */
    private static final Set<String> READ = Set.of("POST /api/v1/runs", "PUT /api/v1/environments",
            "POST /api/v1/environments/dry-run", "POST /api/v1/components/{name}/pipeline/dry-run",
            "POST /api/v1/components", "POST /api/v1/components/{name}/pipeline/commits",
            "PUT /api/v1/uploads/{id}/files/{kind}/{name}",
            "POST /api/v1/uploads/{id}/seal", "POST /api/v1/runs/{component}/{number}/repetition");

    private static JsonNode examples() {
        try (InputStream file = OperationAnswers.class.getResourceAsStream("/examples.json")) {
            return JsonMapper.shared().readTree(file);
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    @Bean
    OpenApiCustomizer statusesAndExamples() {
        JsonNode examples = examples();
        return api -> {
            api.getComponents().addSchemas(PROBLEM, problem());
            statuses().forEach((status, kinds) -> api.getComponents().addResponses(name(status), refused(kinds)));
            api.getPaths().forEach((path, item) -> item.readOperationsMap().forEach((method, operation) -> {
                of(path, method, operation).forEach(status -> operation.getResponses().addApiResponse(
                        Integer.toString(status),
                        new ApiResponse().$ref("#/components/responses/" + name(status))));
                example(operation, examples.path(method + " " + path));
            }));
        };
    }

    private static String name(int status) {
        return "Problem" + status;
    }

    private static Map<Integer, List<Refusal.Kind>> statuses() {
        return Arrays.stream(Refusal.Kind.values()).collect(Collectors.groupingBy(Refusal.Kind::status));
    }

    /** The statuses of the problems that it may answer. */
    private static Set<Integer> of(String path, HttpMethod method, Operation operation) {
        boolean changes = method != HttpMethod.GET;
        boolean signedIn = !OPEN.contains(path);
        boolean body = operation.getRequestBody() != null || path.contains("/files/") || path.endsWith("/pictures");
        boolean asked = Optional.ofNullable(operation.getParameters()).orElse(List.of()).stream()
                .anyMatch(each -> !"path".equals(each.getIn()) || !isText(each.getSchema())
                        || "what".equals(each.getName()));
        Set<Integer> statuses = new TreeSet<>(Set.of(429, 500, 503));
        Map<Integer, Boolean> when = Map.of(400, body || asked, 401, signedIn || body || path.endsWith("/session"), 403,
                signedIn || changes, 404,
                path.contains("{") || body || asked, 409, changes, 413, body, 422,
                READ.contains(method + " " + path), 507, changes && signedIn);
        when.forEach((status, may) -> {
            if (may) {
                statuses.add(status);
            }
        });
        return statuses;
    }

    private static boolean isText(Schema<?> schema) {
        return schema == null || schema.getTypes() == null || schema.getTypes().contains("string");
    }

    private static ApiResponse refused(List<Refusal.Kind> kinds) {
        return new ApiResponse()
                .description(kinds.stream().map(kind -> "`" + kind.type() + "`: " + kind.words())
                        .collect(Collectors.joining(" ")))
                .content(new Content().addMediaType("application/problem+json",
                        new MediaType().schema(new Schema<>().$ref("#/components/schemas/" + PROBLEM))));
    }

    private static void example(Operation operation, JsonNode example) {
        if (example.has("request")) {
            each(operation.getRequestBody().getContent(), media -> media.setExample(plain(example.get("request"))));
        }
        if (example.has("answer")) {
            operation.getResponses().entrySet().stream().filter(each -> each.getKey().startsWith("2"))
                    .forEach(each -> each(each.getValue().getContent(),
                            media -> media.setExample(plain(example.get("answer")))));
        }
    }

    /** Maps and lists: the description is written by another library. */
    private static Object plain(JsonNode example) {
        return JsonMapper.shared().treeToValue(example, Object.class);
    }

    private static void each(Content content, Consumer<MediaType> change) {
        if (content != null) {
            content.values().forEach(change);
        }
    }

    private static Schema<?> problem() {
        Schema<?> field = new ObjectSchema()
                .addProperty("pointer", new StringSchema().description("The field, as a JSON pointer (RFC 6901)"))
                .addProperty("detail", new StringSchema().description("What it should be"));
        return new ObjectSchema().description("What is wrong, and what to do (RFC 9457).")
                .addProperty("type", new StringSchema()
                        .description("Stable: /problems/ and its name; the service's page about it"))
                .addProperty("title", new StringSchema()).addProperty("status", new IntegerSchema())
                .addProperty("detail", new StringSchema().description("For people"))
                .addProperty("pointer", new StringSchema().description("The field that is wrong, where it is one"))
                .addProperty("errors", new ArraySchema().items(field).description("Every field, where several are"))
                .addProperty("error", new StringSchema().description("Of a 500: its number in the service's log"));
    }
}
