package dev.paseo.service.find;

import dev.paseo.core.find.Sought;
import dev.paseo.core.find.Thing;
import dev.paseo.core.text.Word;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import org.springframework.stereotype.Component;

/** Finds what a text may name. */
@Component
class Finds {

    /** No more are looked at by anybody. */
    private static final int MOST = 20;

    /**
     * Something that was found.
     *
     * @param name        as people say it: {@code daylight-api 1.4.7}
     * @param sentence    what it is
     * @param component   of which it is
     * @param version     its number, or of which it is
     * @param environment its name, or where it is
     * @param number      of a run, or of a deployment
     */
    record NamedThing(Thing thing, String name, String sentence, Optional<String> component, Optional<String> version,
            Optional<String> environment, Optional<Long> number) {}

    private final FindMapper mapper;

    Finds(FindMapper mapper) {
        this.mapper = mapper;
    }

    /**
     * What was found, the most likely first.
     *
     * @param seen     the components that may be told of
     * @param accounts whether accounts may be
     */
    List<NamedThing> find(String text, Predicate<String> seen, boolean accounts) {
        Sought sought = Sought.of(text);
        List<NamedThing> found = new ArrayList<>();
        sought.deployment().ifPresent(id -> mapper.deployment(id).map(Finds::deployment).ifPresent(found::add));
        sought.component().ifPresent(component -> {
            sought.run().ifPresent(number -> mapper.runs(beginning(component), number)
                    .forEach(row -> found.add(run(row))));
            sought.version().ifPresent(number -> mapper.components(beginning(component), beginning(component))
                    .forEach(named -> mapper.versionsOf(named.name(), beginning(number), number)
                            .forEach(row -> found.add(version(row)))));
        });
        sought.name().ifPresent(name -> named(name, accounts, found));
        if (sought.component().isEmpty()) {
            sought.version().ifPresent(
                    number -> mapper.versions(beginning(number)).forEach(row -> found.add(version(row))));
        }
        mapper.packages(beginning(text.strip())).forEach(name -> found.add(new NamedThing(Thing.PACKAGE, name,
                "a part of versions", Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty())));
        sought.digest().ifPresent(digest -> ofDigest(beginning(digest), found));
        return found.stream().filter(each -> each.component().map(seen::test).orElse(true)).distinct().limit(MOST)
                .toList();
    }

    private void named(String name, boolean accounts, List<NamedThing> found) {
        String part = "%" + beginning(name);
        mapper.components(part, beginning(name)).forEach(row -> found.add(new NamedThing(Thing.COMPONENT, row.name(),
                row.retired() ? "a component, retired" : "a component", Optional.of(row.name()), Optional.empty(),
                Optional.empty(), Optional.empty())));
        mapper.environments(part, beginning(name)).forEach(row -> found.add(new NamedThing(Thing.ENVIRONMENT,
                row.name(), row.retired() ? "an environment, retired" : "an environment", Optional.empty(),
                Optional.empty(), Optional.of(row.name()), Optional.empty())));
        if (accounts) {
            mapper.accounts(beginning(name)).forEach(account -> found.add(new NamedThing(Thing.ACCOUNT, account,
                    "an account", Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty())));
        }
    }

    private void ofDigest(String beginning, List<NamedThing> found) {
        mapper.ofCommit(beginning).forEach(row -> found.add(new NamedThing(Thing.COMMIT, row.commitId().substring(0, 8),
                "“" + row.commitSummary() + "”, run " + row.component() + " #" + row.number(),
                Optional.of(row.component()), Optional.empty(), Optional.empty(), Optional.of(row.number()))));
        mapper.ofArtifact(beginning)
                .forEach(row -> found.add(artifact(row, "the artifact " + row.artifact() + " of ")));
        mapper.ofDigest(beginning).forEach(row -> found.add(artifact(row, "the digest of ")));
    }

    private static NamedThing artifact(FindMapper.VersionRow row, String what) {
        String name = row.component() + " " + row.number();
        return new NamedThing(Thing.ARTIFACT, name, what + name, Optional.of(row.component()),
                Optional.of(row.number()), Optional.empty(), Optional.empty());
    }

    private static NamedThing version(FindMapper.VersionRow row) {
        return new NamedThing(Thing.VERSION, row.component() + " " + row.number(), "a version",
                Optional.of(row.component()), Optional.of(row.number()), Optional.empty(), Optional.empty());
    }

    private static NamedThing run(FindMapper.RunRow row) {
        return new NamedThing(Thing.RUN, row.component() + " #" + row.number(),
                "a run of " + row.branch() + ", " + Word.of(row.status()), Optional.of(row.component()),
                Optional.empty(), Optional.empty(), Optional.of(row.number()));
    }

    private static NamedThing deployment(FindMapper.DeploymentRow row) {
        return new NamedThing(Thing.DEPLOYMENT, "deployment " + row.id(),
                row.component() + " " + row.version() + " into " + row.environment() + ", " + Word.of(row.status()),
                Optional.of(row.component()), Optional.of(row.version()), Optional.of(row.environment()),
                Optional.of(row.id()));
    }

    /** A pattern of what begins so; what patterns are made of stands for itself in it. */
    private static String beginning(String text) {
        return text.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_") + "%";
    }
}
