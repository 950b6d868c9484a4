package dev.paseo.service.web;

import io.swagger.v3.oas.models.Components;
import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.media.Schema;
import io.swagger.v3.oas.models.parameters.Parameter;
import io.swagger.v3.oas.models.security.SecurityRequirement;
import io.swagger.v3.oas.models.security.SecurityScheme;
import io.swagger.v3.oas.models.tags.Tag;
import java.lang.reflect.Method;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springdoc.core.customizers.OperationCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.util.StringUtils;

/**
 * What every operation is described with: the noun under which it stands, its parameters, and who may ask. The
 * sentences of operations are the Javadoc of their methods.
 */
@Configuration
class OperationWords {

    /** Rooms whose name is not the noun that people know. */
    private static final Map<String, String> NOUNS = Map.ofEntries(Map.entry("access", "account"),
            Map.entry("arrival", "upload"), Map.entry("decision", "gate"), Map.entry("grant", "secret"),
            Map.entry("hook", "source"), Map.entry("outside", "gate"), Map.entry("signin", "session"),
            Map.entry("trigger", "event"), Map.entry("web", "live events"), Map.entry("picture", "gate"),
            Map.entry("announcement", "receiver"), Map.entry("evidence", "version"), Map.entry("start", "event"),
            Map.entry("asking", "ask"), Map.entry("dryrun", "environment"), Map.entry("savedview", "view"),
            Map.entry("serving", "service"),
            Map.entry("releaserecord", "release record"), Map.entry("addedevidence", "version"),
            Map.entry("part", "version"));

    /** What parameters of these names mean wherever they stand; {@code path what} is only that of a path. */
    private static final Map<String, String> PARAMETERS = Map.ofEntries(
            Map.entry("component", "A component's name, such as daylight-api; a former name is understood"),
            Map.entry("environment", "An environment's name, such as production"),
            Map.entry("name", "The name of what the path is about"),
            Map.entry("id", "A number that the service gave"),
            Map.entry("number", "The number of a run, or of a version, such as 41 or 1.4.2"),
            Map.entry("group", "A group's name"), Map.entry("stage", "A stage's name"),
            Map.entry("variant", "The variant of a stage with each; empty: the stage has none"),
            Map.entry("attempt", "Which attempt, from 1; none: the newest"),
            Map.entry("work", "The number of a piece of work on a host"),
            Map.entry("limit", "How many at most; what is beyond the largest is cut to it"),
            Map.entry("before", "Goes on after this number, towards the older ones"),
            Map.entry("after", "Goes on after this name"), Map.entry("status", "Only those in this state"),
            Map.entry("other", "The environment that it is compared with"),
            Map.entry("piece", "Only this piece; none: all"),
            Map.entry("position", "An entry's number in the audit trail, from 0 on"),
            Map.entry("branch", "A branch; none: the main branch, in a list any"),
            Map.entry("reason", "Why; kept in the audit trail"),
            Map.entry("what", "component, place, host, agent, environment or preview-template"),
            Map.entry("secret", "A secret's name, such as DATA_KEY"),
            Map.entry("waitMillis", "How long to wait for the first line where there is none yet; at most 20000 ms"),
            Map.entry("newest", "The last lines rather than those from a number on"),
            Map.entry("text", "What to look for, whatever its case; 1 to 200 characters"),
            Map.entry("from", "Where it begins: a line's number, a version's number or an environment's name"),
            Map.entry("to", "The version or environment that is compared with it"),
            Map.entry("sha256", "A SHA-256, 64 hexadecimal digits"),
            Map.entry("with", "The number of the run that it is compared with"),
            Map.entry("version", "A version's number"), Map.entry("moment", "RFC 3339, in the past"),
            Map.entry("commit", "A commit's id, in full"), Map.entry("digest", "SHA-256 in hexadecimal"),
            Map.entry("token", "The one-time token of a link in a mail"),
            Map.entry("criterion", "The name of a criterion that asks outside"),
            Map.entry("kind", "artifact, bundle, tests, coverage, findings or parts"),
            Map.entry("Upload-Offset", "How many bytes of the file are here already"),
            Map.entry("remove", "Whether what is live is removed from its hosts too"),
            Map.entry("as", "The name that the copy gets"), Map.entry("subject", "Only entries about this"),
            Map.entry("source", "A component that artifacts are taken from"),
            Map.entry("label", "Only of components of which a label has this value"),
            Map.entry("author", "Only of commits whose author's name or address has this in it"),
            Map.entry("by", "Only what this account asked for"),
            Map.entry("since", "Only from this time on; RFC 3339"),
            Map.entry("until", "Only before this time; RFC 3339"));

    @Bean
    OperationCustomizer operations() {
        return (operation, method) -> {
            operation.tags(List.of(noun(method.getBeanType())));
            operation.setOperationId(id(method.getBeanType(), method.getMethod()));
            operation.setSummary(plain(operation.getSummary()));
            operation.setDescription(plain(operation.getDescription()));
            if (Objects.equals(operation.getSummary(), operation.getDescription())) {
                operation.description(null);
            }
            Optional.ofNullable(operation.getParameters()).orElse(List.of()).stream()
                    .filter(parameter -> parameter.getDescription() == null).forEach(OperationWords::describe);
            return operation;
        };
    }

    /** A sentence of a Javadoc in one line, with code between backquotes as in Markdown. */
    private static @Nullable String plain(@Nullable String javadoc) {
        return javadoc == null ? null : javadoc.replaceAll("</?code>", "`").replaceAll("\\s+", " ").strip();
    }

    /** Stable: the controller's noun and what is done, such as runStart. */
    private static String id(Class<?> controller, Method method) {
        return StringUtils.uncapitalize(controller.getSimpleName().replace("Controller", ""))
                + StringUtils.capitalize(method.getName());
    }

    private static String noun(Class<?> controller) {
        String room = controller.getPackageName().replaceAll(".*\\.", "");
        return NOUNS.getOrDefault(room, room);
    }

    private static void describe(Parameter parameter) {
        parameter.setDescription(PARAMETERS.get(parameter.getName()));
    }

    @Bean
    OpenApiCustomizer whole() {
        return api -> {
            TreeSet<String> nouns = new TreeSet<>();
            api.getPaths().values().forEach(
                    path -> path.readOperations().forEach(operation -> nouns.addAll(operation.getTags())));
            api.setTags(nouns.stream().map(noun -> new Tag().name(noun)).toList());
            security(api);
            api.getComponents().getSchemas().values().forEach(schema -> {
                inMarkdown(schema);
                Optional.ofNullable(schema.getProperties()).orElse(Map.of()).values()
                        .forEach(field -> inMarkdown((Schema<?>) field));
            });
        };
    }

    private static void inMarkdown(Schema<?> schema) {
        schema.setDescription(plain(schema.getDescription()));
    }

    private static void security(OpenAPI api) {
        Components components = api.getComponents();
        components.addSecuritySchemes("token", new SecurityScheme().type(SecurityScheme.Type.HTTP).scheme("bearer")
                .description("A token of paseo sign-in or paseo token make"));
        components.addSecuritySchemes("session", new SecurityScheme().type(SecurityScheme.Type.APIKEY)
                .in(SecurityScheme.In.COOKIE).name("paseo-session")
                .description("The console's session; what changes something needs its X-XSRF-TOKEN too"));
        api.addSecurityItem(new SecurityRequirement().addList("token"));
        api.addSecurityItem(new SecurityRequirement().addList("session"));
    }
}
