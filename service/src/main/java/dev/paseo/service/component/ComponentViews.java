package dev.paseo.service.component;

import static java.util.stream.Collectors.groupingBy;
import static java.util.stream.Collectors.toMap;

import dev.paseo.core.trigger.BranchPattern;
import dev.paseo.core.trigger.BranchRules;
import dev.paseo.language.Problem;
import dev.paseo.service.component.ComponentMapper.ManyRow;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.quota.Quotas;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
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

    private QuotaView kept(RegisteredComponent component) {
        long bytes = quotas.kept(component.id());
        return new QuotaView(bytes, quotas.quota().most(), quotas.quota().words(bytes),
                quotas.quota().nearly(component.name(), bytes));
    }

    /** Those that are not retired; asked for together, however many there are. Of their branches only the main one. */
    List<ComponentView> all() {
        Map<Long, List<ManyRow>> rows = mapper.many().stream().collect(groupingBy(ManyRow::component));
        Set<Long> sound = Set.copyOf(mapper.sound());
        return components.all().stream().map(component -> view(component,
                Many.of(rows.getOrDefault(component.id(), List.of())), sound.contains(component.id()))).toList();
    }

    ComponentView view(RegisteredComponent component) {
        long id = component.id();
        return view(component, new Many(components.rules(id), components.heads(id), components.formerNames(id),
                mapper.sources(id).stream().map(row -> new SourceView(row.name(), row.allBranches())).toList(),
                mapper.links(id).stream().map(row -> new LinkView(row.title(), row.address())).toList(),
                mapper.labels(id).stream().collect(toMap(ComponentMapper.LabelRow::name,
                        ComponentMapper.LabelRow::value, (one, other) -> one, LinkedHashMap::new))),
                false);
    }

    private ComponentView view(RegisteredComponent component, Many many, boolean sound) {
        List<Problem> problems = Optional.ofNullable(many.heads().get(component.mainBranch())).filter(head -> !sound)
                .map(commit -> components.readFile(component, commit).problems()).orElse(List.of());
        return new ComponentView(component.name(), component.summary(), component.repository(), component.filePath(),
                component.mainBranch(), many.formerNames(), component.retired(), words(many.rules().trusted()),
                words(many.rules().allowed()), many.sources(), many.links(), many.labels(), many.heads(), problems,
                kept(component));
    }

    /** What a component has many of. */
    private record Many(BranchRules rules, Map<String, String> heads, List<String> formerNames,
            List<SourceView> sources, List<LinkView> links, Map<String, String> labels) {

        static Many of(List<ManyRow> rows) {
            Map<String, List<ManyRow>> by = rows.stream().collect(groupingBy(ManyRow::what));
            return new Many(BranchRules.of(patterns(by, "0"), patterns(by, "1")), values(by, "head"),
                    each(by, "former", ManyRow::name),
                    each(by, "source", row -> new SourceView(row.name(), row.value().equals("1"))),
                    each(by, "link", row -> new LinkView(row.name(), row.value())), values(by, "label"));
        }

        private static <T> List<T> each(Map<String, List<ManyRow>> by, String what, Function<ManyRow, T> made) {
            return by.getOrDefault(what, List.of()).stream().map(made).toList();
        }

        private static List<String> patterns(Map<String, List<ManyRow>> by, String trusted) {
            return by.getOrDefault("rule", List.of()).stream().filter(row -> row.value().equals(trusted))
                    .map(ManyRow::name).toList();
        }

        private static Map<String, String> values(Map<String, List<ManyRow>> by, String what) {
            return by.getOrDefault(what, List.of()).stream()
                    .collect(toMap(ManyRow::name, ManyRow::value, (one, other) -> one, LinkedHashMap::new));
        }
    }
}
