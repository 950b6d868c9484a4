package dev.paseo.service.component;

import dev.paseo.core.trigger.BranchPattern;
import dev.paseo.core.trigger.BranchRules;
import dev.paseo.language.Problem;
import dev.paseo.service.component.Components.Registered;
import dev.paseo.service.quota.Quotas;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Components as people look at them. */
@Component
class ComponentViews {

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
     * @param words  the same to read, such as {@code 1.5 GB kept, of 500 GB that it may}
     * @param nearly said where it is 80 % and more
     */
    record QuotaView(long bytes, long most, String words, Optional<String> nearly) {}

    /** A component whose artifacts may be taken, by trusted branches or by all. */
    record SourceView(String name, boolean allBranches) {}

    record LinkView(String title, String address) {}

    private final Components components;
    private final ComponentMapper mapper;
    private final Quotas quotas;

    ComponentViews(Components components, ComponentMapper mapper, Quotas quotas) {
        this.components = components;
        this.mapper = mapper;
        this.quotas = quotas;
    }

    private static List<String> words(List<BranchPattern> patterns) {
        return patterns.stream().map(BranchPattern::toString).toList();
    }

    private QuotaView kept(Registered component) {
        long bytes = quotas.kept(component.id());
        return new QuotaView(bytes, quotas.quota().most(), quotas.quota().words(bytes),
                quotas.quota().nearly(component.name(), bytes));
    }

    ComponentView view(Registered component) {
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
