package dev.paseo.service.component;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.trigger.BranchPattern;
import dev.paseo.core.trigger.BranchRules;
import dev.paseo.language.Problem;
import dev.paseo.service.component.Components.Registered;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.quota.Quotas;
import dev.paseo.service.settings.Settings;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/v1/components")
class ComponentController {

    /** A component, its branch rules, where its branches are, and what is wrong with the file of its main branch. */
    record ComponentView(String name, String summary, Optional<String> repository, String file, String mainBranch,
            List<String> formerNames, Optional<Instant> retired,
            List<String> trusted, List<String> allowed, List<SourceView> sources, List<LinkView> links,
            Map<String, String> labels, Map<String, String> heads, List<Problem> problems, QuotaView kept) {}

    /**
     * How much is kept of what came for it.
     *
     * @param bytes  artifacts, files between stages, reports, logs, folders to reuse and uploads
     * @param most   how many bytes may be
     * @param words  the same to read, such as {@code 1.5 GiB kept, of 500 GiB that it may}
     * @param nearly said where it is 80 % and more
     */
    record QuotaView(long bytes, long most, String words, Optional<String> nearly) {}

    /** A component whose artifacts may be taken, by trusted branches or by all. */
    record SourceView(String name, boolean allBranches) {}

    record LinkView(String title, String address) {}

    private final Components components;
    private final ComponentMapper mapper;
    private final Registration registration;
    private final Registering registering;
    private final Settings settings;

    /** What belongs to a component beside its registration. */
    @org.springframework.stereotype.Component("componentRegistering")
    record Registering(ComponentChanges changes, HookSecrets hooks, Quotas quotas) {}

    ComponentController(Components components, ComponentMapper mapper, Registration registration,
            Registering registering, Settings settings) {
        this.components = components;
        this.mapper = mapper;
        this.registration = registration;
        this.registering = registering;
        this.settings = settings;
    }

    @GetMapping
    List<ComponentView> all(@AuthenticationPrincipal Person person) {
        Permission.require(person, Action.LOOK);
        return components.all().stream().map(this::view).toList();
    }

    @GetMapping("/{name}")
    ComponentView one(@AuthenticationPrincipal Person person, @PathVariable String name) {
        Permission.require(person, Action.LOOK, Optional.of(name), Optional.empty());
        return view(components.named(name));
    }

    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    ComponentView register(@AuthenticationPrincipal Person person, @RequestBody Registration.NewComponent wanted) {
        Permission.require(person, Action.REGISTER_COMPONENT);
        Registration.requireGrants(person, wanted);
        return view(registration.register(wanted, person.name()));
    }

    /** Puts these links in place of those that are there: title to address. */
    @PutMapping("/{name}/links")
    ComponentView links(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody Map<String, String> links) {
        Permission.require(person, Action.REGISTER_COMPONENT, "change the links of " + name, Optional.of(name),
                Optional.empty());
        registration.links(components.named(name), links, person.name());
        return view(components.named(name));
    }

    /** Puts these labels in place of those that are there: name to value, such as team to wardens. */
    @PutMapping("/{name}/labels")
    ComponentView labels(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody Map<String, String> labels) {
        Permission.require(person, Action.REGISTER_COMPONENT, "label " + name, Optional.of(name), Optional.empty());
        registration.labels(components.named(name), labels, person.name());
        return view(components.named(name));
    }

    /** A component that is opened as a source; to all branches, or to trusted ones alone. */
    record SourceRequest(String name, boolean allBranches) {}

    /** Opens another component's artifacts to this one. */
    @PutMapping("/{name}/sources")
    ComponentView source(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody SourceRequest source) {
        Permission.require(person, Action.REGISTER_COMPONENT, "open components to " + name, Optional.of(name),
                Optional.empty());
        registration.source(components.named(name), components.named(source.name()), source.allBranches(),
                person.name());
        return view(components.named(name));
    }

    /** Closes another component's artifacts to this one again. */
    @DeleteMapping("/{name}/sources/{source}")
    ComponentView close(@AuthenticationPrincipal Person person, @PathVariable String name,
            @PathVariable String source) {
        Permission.require(person, Action.REGISTER_COMPONENT, "shut " + source + " to " + name, Optional.of(name),
                Optional.empty());
        registration.closed(components.named(name), components.named(source), person.name());
        return view(components.named(name));
    }

    /** Changes what is given, all of it or nothing; what is absent stays. */
    @PostMapping("/{name}/changes")
    ComponentView change(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody ComponentChanges.ComponentChange change) {
        Permission.require(person, Action.REGISTER_COMPONENT, "change " + name, Optional.of(name), Optional.empty());
        registering.changes().concerned(components.named(name), change).forEach(each -> Permission.require(person,
                Action.REGISTER_COMPONENT, Optional.of(each.name()), Optional.empty()));
        return view(registering.changes().change(components.named(name), change, person));
    }

    /** A ready post-receive script for the repository. It holds the hook's secret. */
    @GetMapping(value = "/{name}/hook", produces = MediaType.TEXT_PLAIN_VALUE)
    String hook(@AuthenticationPrincipal Person person, @PathVariable String name) throws IOException {
        Permission.require(person, Action.REGISTER_COMPONENT);
        try (InputStream template = ComponentController.class.getResourceAsStream("/hook/post-receive")) {
            return new String(template.readAllBytes(), StandardCharsets.UTF_8)
                    .replace("@ADDRESS@", settings.address() + "/hooks/v1/push/" + name)
                    .replace("@SECRET@", registering.hooks().of(components.named(name)).substring("whsec_".length()));
        }
    }

    private static List<String> words(List<BranchPattern> patterns) {
        return patterns.stream().map(BranchPattern::toString).toList();
    }

    private QuotaView kept(Registered component) {
        long bytes = registering.quotas().kept(component.id());
        return new QuotaView(bytes, registering.quotas().quota().most(), registering.quotas().quota().words(bytes),
                registering.quotas().quota().nearly(component.name(), bytes));
    }

    private ComponentView view(Registered component) {
        BranchRules rules = components.rules(component.id());
        Map<String, String> heads = components.heads(component.id());
        List<Problem> problems = Optional.ofNullable(heads.get(component.mainBranch()))
                .map(commit -> components.readFile(component, commit).problems()).orElse(List.of());
        return new ComponentView(component.name(), component.summary(), component.repository(), component.filePath(),
                component.mainBranch(), components.formerNames(component.id()), component.retired(),
                words(rules.trusted()), words(rules.allowed()),
                mapper.sources(component.id()).stream().map(row -> new SourceView(row.name(), row.allBranches()))
                        .toList(),
                mapper.links(component.id()).stream().map(row -> new LinkView(row.title(), row.address())).toList(),
                mapper.labels(component.id()).stream()
                        .collect(Collectors.toMap(ComponentMapper.LabelRow::name, ComponentMapper.LabelRow::value,
                                (one, other) -> one, LinkedHashMap::new)),
                heads, problems,
                kept(component));
    }
}
