package dev.paseo.service.preview;

import dev.paseo.language.environment.EnvironmentsFile.Template;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.preview.PreviewMapper.PreviewRow;
import dev.paseo.service.preview.PreviewMapper.TemplateRow;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.springframework.stereotype.Component;

/** Where previews are: each branch has an environment of its own, with a port of its own. */
@Component
class PreviewPlaces {

    private final PreviewMapper mapper;
    private final PreviewTemplates templates;
    private final Environments environments;
    private final Secrets secrets;
    private final Changes changes;

    PreviewPlaces(PreviewMapper mapper, PreviewTemplates templates, Environments environments, Secrets secrets,
            Changes changes) {
        this.mapper = mapper;
        this.templates = templates;
        this.environments = environments;
        this.secrets = secrets;
        this.changes = changes;
    }

    /**
     * The branch's own, made where there is none yet.
     *
     * @throws Refusal a conflict where it could not be taken away again, has no agent, is being removed, or there are
     *                 as many as there may be
     */
    Place place(Versions.Version version, TemplateRow row, String owner) {
        Template template = templates.read(row);
        if (version.recipe().orElseThrow().parts().removal().isEmpty()) {
            throw Refusal
                    .conflict("its recipe has no removal, so that a preview of it could never be taken away again");
        }
        String agent = templates.agent(template);
        return changes.in(() -> {
            mapper.lock(row.environmentId());
            Optional<PreviewRow> before = mapper.of(version.componentId(), version.branch());
            boolean there = before.filter(preview -> preview.removedAt() == null && preview.removing() == null)
                    .isPresent();
            if (before.filter(preview -> preview.removedAt() == null && preview.removing() != null).isPresent()) {
                throw Refusal.conflict("The preview of this branch is being removed; the next push gets a new one");
            }
            int port = there ? before.get().port() : port(template, row);
            String name = before.map(PreviewRow::environment).orElseGet(() -> name(template, version));
            Place place = environments.temporary(name, version.componentId(), name,
                    settings(template, name, port), agent, row.setBy());
            if (there) {
                mapper.pushed(place.environmentId(), owner, changes.now());
            } else {
                made(place, row, version, owner, port);
            }
            secrets.copy(template.secrets(), version.componentId(), row.environmentId(), place.environmentId());
            changes.publish("preview", name);
            return place;
        });
    }

    private void made(Place place, TemplateRow row, Versions.Version version, String owner, int port) {
        mapper.add(place.environmentId(), row.environmentId(), version.componentId(), version.branch(),
                owner, port, changes.now());
        changes
                .record(AuditTrail.Entry.of("paseo", "preview made", version.component()).in(place.environment())
                        .with("branch", version.branch()).with("address", place.url().orElse("")));
    }

    /** The first free port; refused where there are as many as there may be. */
    private int port(Template template, TemplateRow row) {
        List<PreviewRow> there = mapper.there().stream().filter(preview -> preview.templateId() == row.environmentId())
                .toList();
        if (there.size() >= template.most()) {
            throw Refusal.conflict(
                    "There are " + there.size() + " previews of " + row.name() + " already, which is the most: "
                            + there.stream().map(PreviewRow::branch).limit(10).collect(Collectors.joining(", ")));
        }
        Set<Integer> used = there.stream().map(PreviewRow::port).collect(Collectors.toSet());
        return IntStream.rangeClosed(template.firstPort(), template.lastPort()).filter(port -> !used.contains(port))
                .findFirst()
                .orElseThrow(() -> Refusal.conflict("All ports of " + row.name() + ", " + template.firstPort() + " to "
                        + template.lastPort() + ", are in use"));
    }

    /** The template's name and the branch's, as far as they can be an environment's. */
    private static String name(Template template, Versions.Version version) {
        String slug = (template.name() + "-" + version.branch()).toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-")
                .replaceAll("^-|-$", "");
        String unique = Integer
                .toString(Math.floorMod((version.component() + " " + version.branch()).hashCode(), 46_656), 36);
        return slug.substring(0, Math.min(55, slug.length())) + "-" + unique;
    }

    private static Environments.PlaceSettings settings(Template template, String host, int port) {
        Optional<String> url = Optional.of(template.url().replace("{port}", Integer.toString(port)));
        return new Environments.PlaceSettings(1, url, template.variables(),
                Map.of(host, new Environments.HostSettings(url, Map.of(), Optional.empty(), Optional.empty())),
                template.secrets(), Optional.empty());
    }
}
