package dev.paseo.service.component;

import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.component.ComponentChanges.ComponentChange;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.loosening.Loosenings;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Writes down how a component is changed; what loosens its rules, what it was called, and the trail with it. */
@Component
class ChangedComponents {

    /** @param told before and after of what changes, as the trail has it */
    record Change(ComponentChange wanted, Optional<SourceMoves.Reached> source, Map<String, String> told, String by,
            Optional<String> agreedBy) {}

    private final ComponentMapper mapper;
    private final SourceMoves sources;
    private final ComponentChecks checks;
    private final Loosenings loosenings;
    private final Changes changes;

    ChangedComponents(ComponentMapper mapper, SourceMoves sources, ComponentChecks checks, Loosenings loosenings,
            Changes changes) {
        this.mapper = mapper;
        this.sources = sources;
        this.checks = checks;
        this.loosenings = loosenings;
        this.changes = changes;
    }

    void write(RegisteredComponent component, Change how) {
        ComponentChange change = how.wanted();
        changes.run(() -> {
            mapper.lock(component.id());
            how.source().ifPresent(reached -> sources.move(component, reached));
            mapper.change(component.id(), change.name().orElse(component.name()),
                    change.file().orElse(component.filePath()), change.mainBranch().orElse(component.mainBranch()));
            change.name().filter(name -> !name.equals(component.name())).ifPresent(name -> {
                mapper.dropFormerName(name, component.id());
                mapper.addFormerName(component.name(), component.id());
                mapper.renameSource(component.name(), name);
            });
            change.trusted().ifPresent(patterns -> {
                List<String> more = checks.more(component, change);
                if (!more.isEmpty() && how.agreedBy().isEmpty()) {
                    loosenings.ofComponent(component.id(), ComponentChecks.trust(component, more), how.by());
                }
                rules(component.id(), patterns, true);
            });
            change.allowed().ifPresent(patterns -> rules(component.id(), patterns, false));
            AuditTrail.Entry entry = AuditTrail.Entry.of(how.by(), "component changed", component.name());
            entry = how.agreedBy().isPresent() ? entry.with("agreed by", how.agreedBy().get()) : entry;
            for (Map.Entry<String, String> each : how.told().entrySet()) {
                entry = entry.with(each.getKey(), each.getValue());
            }
            changes.record(BranchStates.into(entry, component.id(), mapper));
            changes.publish("component", component.name());
        });
    }

    private void rules(long component, List<String> patterns, boolean trusted) {
        mapper.dropRules(component, trusted);
        patterns.stream().distinct().forEach(pattern -> mapper.addRule(component, pattern, trusted));
    }
}
