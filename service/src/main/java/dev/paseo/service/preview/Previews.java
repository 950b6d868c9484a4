package dev.paseo.service.preview;

import dev.paseo.core.cause.Cause;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.core.trigger.Trigger;
import dev.paseo.language.environment.EnvironmentsFile.Template;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.service.agent.Agents;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.component.Components;
import dev.paseo.service.database.Json;
import dev.paseo.service.deployment.Requests;
import dev.paseo.service.engine.EffectHandler;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.notice.Event;
import dev.paseo.service.notice.Notices;
import dev.paseo.service.place.Places;
import dev.paseo.service.preview.PreviewMapper.PreviewRow;
import dev.paseo.service.preview.PreviewMapper.TemplateRow;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.source.Mirror;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/**
 * Makes preview environments for branches, brings each new version of a branch to its own, and takes it away in the
 * end.
 */
@Component
class Previews implements EffectHandler {

    private static final Logger LOG = LoggerFactory.getLogger(Previews.class);

    private final PreviewMapper mapper;
    private final Requests requests;
    private final Places places;
    private final Sources sources;
    private final Writing writing;

    /** Where what a preview needs comes from. */
    @Component("previewSources")
    record Sources(Versions versions, Components components, Environments environments, Secrets secrets,
            Agents agents) {}

    /** How it is written down. */
    @Component("previewWriting")
    record Writing(Changes changes, Notices notices, Json json) {}

    Previews(PreviewMapper mapper, Requests requests, Places places, Sources sources, Writing writing) {
        this.mapper = mapper;
        this.requests = requests;
        this.places = places;
        this.sources = sources;
        this.writing = writing;
    }

    @Override
    public String kind() {
        return Versions.PREVIEW;
    }

    Template template(TemplateRow row) {
        return writing.json().read(row.body(), Template.class);
    }

    /** A version was sealed: where its file says that its branch gets previews, it is deployed to the branch's own. */
    @Override
    public void perform(String body) {
        Versions.Version version = sources.versions().byId(Long.parseLong(body));
        Optional<TemplateRow> template = mapper.templates().stream()
                .filter(row -> template(row).component().equals(version.component())).findFirst();
        if (version.commit().isEmpty() || !wanted(version)) {
            return;
        }
        if (template.isEmpty()) {
            none(version, "no environments file has a template for previews of " + version.component());
            return;
        }
        try {
            if (!requests.ofVersion(version.id(), Kind.PREVIEW).isEmpty()) {
                return;
            }
            Place place = place(version, template.get());
            requests.request(new Requests.Wanted(place, version, Kind.PREVIEW, Optional.empty(),
                    new Cause.Walk(version.component(), version.number(), ""), Optional.empty()));
        } catch (Refusal refused) {
            if (refused.kind() != Refusal.Kind.CONFLICT) {
                throw refused;
            }
            none(version, String.valueOf(refused.getMessage()));
        }
    }

    /** The branch gets none, and whoever pushed it is told why. */
    private void none(Versions.Version version, String why) {
        writing.changes().run(() -> {
            writing.changes()
                    .record(AuditTrail.Entry.of("paseo", "no preview", version.component() + " " + version.number())
                            .because(why).with("branch", version.branch()));
            writing.notices().tellPushers(version.componentId(), version.commit().orElseThrow(),
                    Notices.Said.of(Event.PREVIEW, version.component(),
                            "There is no preview of " + version.branch(),
                            version.component() + " " + version.number() + " gets none: " + why + ".",
                            "/versions/" + version.component() + "/" + version.number(), "none of " + version.id()));
        });
    }

    private boolean wanted(Versions.Version version) {
        return sources.components()
                .readFile(sources.components().byId(version.componentId()), version.commit().orElseThrow()).file()
                .map(PipelineFile::starts).orElse(List.of()).stream()
                .anyMatch(start -> start instanceof Trigger.Preview(var branches)
                        && branches.stream().anyMatch(pattern -> pattern.matches(version.branch())));
    }

    private Place place(Versions.Version version, TemplateRow row) {
        Template template = template(row);
        if (version.recipe().orElseThrow().parts().removal().isEmpty()) {
            throw Refusal
                    .conflict("its recipe has no removal, so that a preview of it could never be taken away again");
        }
        String agent = mapper.agent(template.host())
                .orElseThrow(() -> Refusal.conflict("The host " + template.host() + " of previews has no agent"));
        sources.agents().refusesPreviews(agent).ifPresent(why -> {
            throw Refusal.conflict("The agent of the host " + template.host() + " takes no previews: " + why);
        });
        Mirror.Commit commit = sources.components().mirror(sources.components().byId(version.componentId()))
                .commit(version.commit().orElseThrow());
        return writing.changes().in(() -> {
            mapper.lock(row.environmentId());
            Optional<PreviewRow> before = mapper.of(version.componentId(), version.branch());
            boolean there = before.filter(preview -> preview.removedAt() == null && preview.removing() == null)
                    .isPresent();
            if (before.filter(preview -> preview.removedAt() == null && preview.removing() != null).isPresent()) {
                throw Refusal.conflict("The preview of this branch is being removed; the next push gets a new one");
            }
            int port = there ? before.get().port() : port(template, row);
            String name = before.map(PreviewRow::environment).orElseGet(() -> name(template, version));
            Place place = sources.environments().temporary(name, version.componentId(), name,
                    settings(template, name, port), agent, row.setBy());
            if (there) {
                mapper.pushed(place.environmentId(), commit.address(), writing.changes().now());
            } else {
                made(place, row, version, commit, port);
            }
            sources.secrets().copy(template.secrets(), version.componentId(), row.environmentId(),
                    place.environmentId());
            writing.changes().publish("preview", name);
            return place;
        });
    }

    private void made(Place place, TemplateRow row, Versions.Version version, Mirror.Commit commit, int port) {
        mapper.add(place.environmentId(), row.environmentId(), version.componentId(), version.branch(),
                commit.address(), port, writing.changes().now());
        writing.changes()
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

    @Override
    public void gaveUp(String body, String error) {
        LOG.error("version {} gets no preview: {}", body, error);
    }

    /** Begins to take a preview away, or tries again; true once nothing of it is there any more. */
    boolean remove(PreviewRow preview, String why, String by) {
        Place place = sources.environments().placeById(mapper.place(preview.environmentId()));
        writing.changes().run(() -> {
            if (preview.removing() == null) {
                writing.changes().record(AuditTrail.Entry.of(by, "preview taken away", preview.component())
                        .in(preview.environment()).because(why).with("branch", preview.branch()));
            }
            mapper.removing(preview.environmentId(), why, writing.changes().now());
            places.change(place.id(), now -> Optional.of(new PlaceEvent.RemovalAsked(why)));
        });
        boolean gone = sources.environments().placeById(place.id()).liveDeployment().isEmpty()
                && places.isQuiet(place.id());
        if (gone && mapper.removed(preview.environmentId(), writing.changes().now()) == 1) {
            writing.changes().publish("preview", preview.environment());
        }
        return gone;
    }

    /** Those that are there, or are being taken away. */
    List<PreviewRow> there() {
        return mapper.there();
    }

    PreviewRow named(String environment) {
        return mapper.named(environment).orElseThrow(() -> Refusal.notFound("There is no preview " + environment));
    }

    Place place(PreviewRow preview) {
        return sources.environments().placeById(mapper.place(preview.environmentId()));
    }
}
