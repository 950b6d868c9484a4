package dev.paseo.service.origin;

import dev.paseo.core.origin.Statement;
import dev.paseo.core.text.Sha256;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.settings.Settings;
import dev.paseo.service.version.Versions;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * What is stated: in-toto Statement 1, of a version with the predicate SLSA Provenance 1.0, of what went live with one
 * of our own. docs/reference/origin.md describes each field.
 */
@Component
class Provenance {

    private final StatementMapper mapper;
    private final Versions versions;
    private final Causes causes;
    private final Settings settings;

    Provenance(StatementMapper mapper, Versions versions, Causes causes, Settings settings) {
        this.mapper = mapper;
        this.versions = versions;
        this.causes = causes;
        this.settings = settings;
    }

    /** A map that leaves out what is not there. */
    private static Map<String, Object> map(Object... pairs) {
        Map<String, Object> map = new LinkedHashMap<>();
        for (int i = 0; i < pairs.length; i += 2) {
            Object value = pairs[i + 1] instanceof Optional<?> optional ? optional.orElse(null) : pairs[i + 1];
            if (value != null && !value.equals("") && !value.equals(List.of())) {
                map.put(String.valueOf(pairs[i]), value);
            }
        }
        return map;
    }

    private static Map<String, Object> file(String name, String algorithm, String digest) {
        return map("name", name, "digest", Map.of(algorithm, digest));
    }

    /** Its files; of a version without any, its digest as the service has it. */
    private List<Map<String, Object>> subjects(Versions.Version version) {
        List<Map<String, Object>> subjects = new ArrayList<>(mapper.files(version.id()).stream()
                .map(row -> file(row.name(), "sha256", row.digest())).toList());
        version.bundle().ifPresent(bundle -> subjects.add(file("bundle", "sha256", bundle)));
        return subjects.isEmpty() ? List.of(file("version", "sha256", version.digest())) : subjects;
    }

    private Map<String, Object> statement(Versions.Version version, String type, Map<String, Object> predicate) {
        return map("_type", Statement.TYPE, "subject", subjects(version), "predicateType", type, "predicate",
                predicate);
    }

    private static Map<String, Object> named(Versions.Version version) {
        return map("component", version.component(), "version", version.number(), "digest", version.digest());
    }

    private List<String> because(long cause) {
        return causes.chain(cause).stream().map(Causes.Link::sentence).toList();
    }

    Map<String, Object> ofVersion(long id) {
        Versions.Version version = versions.byId(id);
        return statement(version, Statement.PROVENANCE, version.run().map(run -> built(version, run))
                .orElseGet(() -> arrived(version)));
    }

    private Map<String, Object> built(Versions.Version version, long run) {
        StatementMapper.BuiltRow row = mapper.built(version.id());
        List<Map<String, Object>> materials = new ArrayList<>();
        version.commit().ifPresent(commit -> materials.add(map("uri",
                Optional.ofNullable(row.repository()).map(repository -> "git+" + repository), "digest",
                Map.of("gitCommit", commit))));
        mapper.inputs(run).forEach(input -> materials.add(file(input.what(), "sha256", input.digest())));
        return map("buildDefinition", map("buildType", Statement.RUN, "externalParameters",
                map("repository", Optional.ofNullable(row.repository()), "branch", version.branch(), "commit",
                        version.commit(), "pipelineFile", Optional.ofNullable(row.path()), "because",
                        because(version.cause())),
                "internalParameters", map("pipelineFileSha256", Optional.ofNullable(row.pipeline()).map(Sha256::hex),
                        "trusted", version.trusted()),
                "resolvedDependencies", materials),
                "runDetails", map("builder", map("id", settings.address()), "metadata",
                        map("invocationId", settings.address() + "/runs/" + version.component() + "/"
                                + version.runNumber().orElseThrow(), "startedOn", text(row.startedAt()),
                                "finishedOn", version.sealedAt().toString()),
                        "byproducts", reports(version, Optional.of(run))),
                "paseo_version", named(version), "paseo_stages", stages(run));
    }

    private static Optional<String> text(@Nullable Object time) {
        return Optional.ofNullable(time).map(Object::toString);
    }

    private Map<String, Object> arrived(Versions.Version version) {
        return map("buildDefinition", map("buildType", Statement.ARRIVAL, "externalParameters",
                map("origin", version.origin(), "branch", version.branch(), "commit", version.commit(), "because",
                        because(version.cause()))),
                "runDetails", map("builder", map("id", settings.address()), "metadata",
                        map("finishedOn", version.sealedAt().toString()), "byproducts",
                        reports(version, Optional.empty())),
                "paseo_version", named(version));
    }

    private List<Map<String, Object>> reports(Versions.Version version, Optional<Long> run) {
        return mapper.reports(version.id(), run.orElse(null), version.sealedAt()).stream()
                .map(row -> map("name", (row.kind() + " " + Optional.ofNullable(row.stage()).orElse("")).strip(),
                        "digest", Map.of("sha256", Sha256.hex(row.body()))))
                .toList();
    }

    private List<Map<String, Object>> stages(long run) {
        List<StatementMapper.StepRow> steps = mapper.steps(run);
        return mapper.stages(run).stream().map(row -> map("name", row.name(), "variant", row.variant(), "attempt",
                row.attempt(), "status", row.status(), "reused", Optional.ofNullable(row.reused()), "agent",
                Optional.ofNullable(row.agent()), "walls", Optional.ofNullable(row.walls()), "startedOn",
                text(row.startedAt()), "finishedOn", text(row.endedAt()), "steps",
                steps.stream().filter(step -> step.work() == row.work()).map(step -> map("name", step.name(),
                        "status", step.status(), "exitCode", Optional.ofNullable(step.exitCode()))).toList()))
                .toList();
    }

    Map<String, Object> ofDeployment(long id) {
        StatementMapper.LiveRow row = mapper.deployment(id);
        Versions.Version version = versions.byId(row.versionId());
        return statement(version, Statement.LIVE, map("version", named(version), "environment", row.environment(),
                "deployment", id, "kind", row.kind(), "service", settings.address(), "approvedSubject",
                Optional.ofNullable(row.subject()), "requestedBy", Optional.ofNullable(row.requestedBy()),
                "requestedOn", row.requestedAt().toString(), "liveOn", text(row.liveAt()), "emergency",
                Optional.ofNullable(row.emergency()), "because", because(row.causeId()), "decisions",
                mapper.decided(List.of(id)).stream().map(each -> map("by", each.by(), "inPlaceOf",
                        Optional.ofNullable(each.inPlaceOf()), "decision", each.yes() ? "yes" : "no", "comment",
                        each.comment(), "subject", each.subject(), "on", each.at().toString())).toList(),
                "hosts", mapper.hosts(id)));
    }
}
