package dev.paseo.service.run;

import dev.paseo.core.version.VersionPattern;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Map;
import org.springframework.stereotype.Component;

/** The numbers of runs and of their versions: gaps are fine, doubles are not. */
@Component
class VersionNumbers {

    private final RunMapper mapper;
    private final Versions versions;
    private final ServiceClock clock;

    VersionNumbers(RunMapper mapper, Versions versions, ServiceClock clock) {
        this.mapper = mapper;
        this.versions = versions;
        this.clock = clock;
    }

    long nextRun(long component) {
        return next(component, "run");
    }

    private long next(long component, String scope) {
        mapper.count(component, scope);
        return mapper.counted(component, scope).orElseThrow();
    }

    /**
     * The number that the version will have.
     *
     * @throws Refusal a conflict where the pattern names a tag and there is none, or its number is sealed already
     */
    String reserve(RunStarts.Start start) {
        long component = start.component().id();
        if (start.plan().versions().contains("{tag}") && start.commit().tag().isEmpty()) {
            throw Refusal.conflict("The pattern " + start.plan().versions()
                    + " names {tag}, but there is no tag at or before this commit");
        }
        String trusted = new VersionPattern(start.plan().versions()).scope(Map.of(
                "commit", start.commit().id().substring(0, 7), "branch", start.branch(), "tag",
                start.commit().tag().orElse(""),
                "date",
                DateTimeFormatter.ofPattern("yyyy.MM.dd").withZone(ZoneOffset.UTC)
                        .format(clock.now())));
        String scope = trusted;
        if (!start.trusted()) {
            long following = mapper.counted(component, trusted).orElse(0L) + 1;
            scope = VersionPattern.beside(VersionPattern.number(trusted, following), start.branch());
        }
        String number = scope.contains("{serial}") ? VersionPattern.number(scope, next(component, scope)) : scope;
        if (versions.exists(component, number)) {
            throw Refusal.conflict("Version " + number + " of " + start.component().name()
                    + " is sealed already; versions never change, "
                    + "so the pattern " + start.plan().versions() + " cannot give this number again");
        }
        mapper.reserve(component, number);
        return number;
    }
}
