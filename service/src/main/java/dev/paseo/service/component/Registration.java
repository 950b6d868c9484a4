package dev.paseo.service.component;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.language.file.Names;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.pipeline.FileInForce;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.source.Mirror;
import dev.paseo.service.source.Mirrors;
import dev.paseo.service.source.SourceAccess;
import jakarta.validation.constraints.Size;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Brings components in: their repository, their branch rules, the secrets opened to them and their hook's secret. */
@Component
public class Registration {

    private static final Logger LOG = LoggerFactory.getLogger(Registration.class);

    /**
     * A new component.
     *
     * @param repository where its source is; empty: its versions arrive from elsewhere
     * @param text    the pipeline file of a component without a repository
     * @param credentials to reach the repository with
     * @param trusted patterns of branches whose runs may have secrets and whose versions may walk
     * @param allowed patterns of further branches whose pushes may start runs
     * @param sources components whose artifacts its trusted branches may take
     * @param openSources those whose artifacts all of its branches may take
     * @param links   to dashboards, the runbook and the like: title to address
     */
    public record NewComponent(String name, Optional<String> repository, @Size(max = 1_000_000) Optional<String> text,
            Optional<SourceAccess> credentials, Optional<String> file, Optional<String> mainBranch,
            List<String> trusted, List<String> allowed, List<String> secrets, Optional<List<String>> sources,
            Optional<List<String>> openSources, Optional<Map<String, String>> links) {}

    private final ComponentMapper mapper;
    private final Components components;
    private final Mirrors mirrors;
    private final FirstAccess access;
    private final Changes changes;

    Registration(ComponentMapper mapper, Components components, Mirrors mirrors, FirstAccess access, Changes changes) {
        this.mapper = mapper;
        this.components = components;
        this.mirrors = mirrors;
        this.access = access;
        this.changes = changes;
    }

    /** What cannot be registered at all. */
    public void refuse(NewComponent wanted) {
        if (!Names.NAME.matcher(wanted.name()).matches()) {
            throw Refusal.invalid("/name",
                    "A component's name has " + Names.NAME_WORDS + "; got “" + wanted.name() + "”");
        }
        wanted.repository().ifPresent(repository -> {
            mirrors.allow(repository);
            wanted.credentials().orElse(SourceAccess.NONE).check(repository);
        });
        if (wanted.repository().isPresent() == wanted.text().isPresent()) {
            throw Refusal.invalid("/repository",
                    "A component has a repository, or else the text of its pipeline file: one of them");
        }
        if (!components.free(wanted.name())) {
            throw taken(wanted.name());
        }
        Stream.concat(wanted.trusted().stream(), wanted.allowed().stream()).forEach(Registration::pattern);
        wanted.secrets().stream().filter(name -> !Names.VARIABLE.matcher(name).matches()).findFirst()
                .ifPresent(name -> {
                    throw Refusal.invalid("/secrets",
                            "A secret is named like a variable, in capitals, digits and underscores, and not "
                                    + "PASEO_; got “"
                                    + name + "”");
                });
    }

    private Refusal taken(String name) {
        return Refusal
                .conflict("There is a component named " + name + " already; " + components.freeName(name) + " is free");
    }

    static void pattern(String text) {
        if (text.isBlank() || text.length() > Components.LONGEST_NAME) {
            throw Refusal.invalid("/trusted",
                    "A branch or pattern has 1 to " + Components.LONGEST_NAME + " characters; got “" + text + "”");
        }
    }

    /**
     * To give a component secrets is to open them to whoever may push to its trusted branches: it takes who may set
     * their values.
     */
    public static void requireGrants(Person person, NewComponent wanted) {
        if (!wanted.secrets().isEmpty()) {
            Permission.require(person, Action.SET_SECRET,
                    "give secrets to " + wanted.name() + " (register it without, and let somebody who may give them)",
                    Optional.of(wanted.name()), Optional.empty());
        }
    }

    RegisteredComponent register(NewComponent wanted, String by) {
        refuse(wanted);
        // Where the repository does not let us in, nothing is registered.
        wanted.repository().ifPresent(
                repository -> mirrors.glance(repository, wanted.credentials().orElse(SourceAccess.NONE)).listing());
        changes.run(() -> {
            if (!components.free(wanted.name())) {
                throw taken(wanted.name());
            }
            mapper.add(wanted.name(), wanted.repository().orElse(null), wanted.file().orElse("paseo.yaml"),
                    wanted.mainBranch().orElse("main"),
                    changes.now());
            long id = components.named(wanted.name()).id();
            wanted.trusted().forEach(pattern -> mapper.addRule(id, pattern, true));
            wanted.allowed().forEach(pattern -> mapper.addRule(id, pattern, false));
            access.give(id, wanted).forEach(secret -> changes
                    .record(AuditTrail.Entry.of(by, "secret granted", secret).with("component", wanted.name())));
            wanted.sources().orElse(List.of())
                    .forEach(name -> mapper.openSource(id, components.named(name).id(), false));
            wanted.openSources().orElse(List.of())
                    .forEach(name -> mapper.openSource(id, components.named(name).id(), true));
            Links.keep(mapper, id, wanted.links().orElse(Map.of()));
            changes.record(access
                    .stating(BranchStates.into(AuditTrail.Entry.of(by, "component registered", wanted.name())
                            .with("repository", wanted.repository().orElse("none"))
                            .with("trusted", String.join(", ", wanted.trusted())), id, mapper), id));
            changes.publish("component", wanted.name());
        });
        RegisteredComponent component = components.named(wanted.name());
        wanted.text().ifPresentOrElse(text -> components.saveFile(component, "", text, by), () -> seeHeads(component));
        return components.named(wanted.name());
    }

    void links(RegisteredComponent component, Map<String, String> links, String by) {
        changes.run(() -> {
            Links.keep(mapper, component.id(), links);
            changes.record(AuditTrail.Entry.of(by, "links set", component.name()).with("links",
                    String.join(", ", links.keySet())));
            changes.publish("component", component.name());
        });
    }

    void labels(RegisteredComponent component, Map<String, String> labels, String by) {
        changes.run(() -> {
            Labels.keep(mapper, component.id(), labels);
            changes.record(AuditTrail.Entry.of(by, "labels set", component.name()).with("labels",
                    labels.entrySet().stream()
                            .map(label -> label.getKey() + "=" + label.getValue()).sorted()
                            .collect(Collectors.joining(", "))));
            changes.publish("component", component.name());
        });
    }

    void source(RegisteredComponent component, RegisteredComponent source, boolean allBranches, String by) {
        changes.run(() -> {
            mapper.openSource(component.id(), source.id(), allBranches);
            changes.record(AuditTrail.Entry.of(by, "source opened", component.name()).with("source", source.name())
                    .with("branches", allBranches ? "all" : "trusted"));
        });
    }

    void closed(RegisteredComponent component, RegisteredComponent source, String by) {
        changes.run(() -> {
            if (mapper.closeSource(component.id(), source.id()) == 0) {
                throw Refusal.notFound(source.name() + " is not opened to " + component.name());
            }
            changes.record(AuditTrail.Entry.of(by, "source closed", component.name()).with("source", source.name()));
        });
    }

    /** The branches that are there already: known from now on, but nothing was pushed, so nothing starts. */
    void seeHeads(RegisteredComponent component) {
        Mirror mirror = components.mirror(component);
        mirror.fetch();
        Map<String, FileInForce> files = new LinkedHashMap<>();
        Map<String, String> known = components.heads(component.id());
        Mirror.Refs refs = mirror.refs();
        refs.tags().forEach((tag, commit) -> {
            if (tag.length() <= Components.LONGEST_NAME) {
                components.seeTag(component.id(), tag, commit);
            }
        });
        refs.heads().forEach((branch, commit) -> {
            // What cannot be known now is told by the next look.
            if (branch.length() <= Components.LONGEST_NAME) {
                seeHead(component, branch, Optional.ofNullable(known.get(branch)), commit, files);
            }
        });
        known.forEach((branch, commit) -> {
            if (!refs.heads().containsKey(branch)) {
                components.dropHead(component.id(), branch, commit);
            }
        });
        components.refreshTriggers();
    }

    private void seeHead(RegisteredComponent component, String branch, Optional<String> before, String commit,
            Map<String, FileInForce> files) {
        FileInForce file;
        try {
            file = files.computeIfAbsent(commit, id -> components.readFile(component, id));
        } catch (Refusal unreadable) {
            LOG.warn("{} of {} cannot be read at {}: {}", branch, component.name(), commit, unreadable.getMessage());
            return;
        }
        components.moveHead(component.id(), branch, before, commit, file.id());
        if (branch.equals(component.mainBranch())) {
            file.file().ifPresent(read -> components.summarise(component.id(), read.summary()));
        }
    }
}
