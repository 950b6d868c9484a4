package dev.paseo.service.preview;

import dev.paseo.core.cause.Cause;
import dev.paseo.core.deployment.Kind;
import dev.paseo.service.engine.EffectHandler;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.preview.PreviewMapper.TemplateRow;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.request.Requests;
import dev.paseo.service.request.Wanted;
import dev.paseo.service.version.Versions;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Brings each new version of a branch that gets previews to the branch's own preview environment. */
@Component
class Previews implements EffectHandler {

    private static final Logger LOG = LoggerFactory.getLogger(Previews.class);

    private final PreviewsAsked asked;
    private final PreviewTemplates templates;
    private final PreviewPlaces places;
    private final Requests requests;
    private final NoPreview none;

    Previews(PreviewsAsked asked, PreviewTemplates templates, PreviewPlaces places, Requests requests,
            NoPreview none) {
        this.asked = asked;
        this.templates = templates;
        this.places = places;
        this.requests = requests;
        this.none = none;
    }

    @Override
    public String kind() {
        return Versions.PREVIEW;
    }

    /** A version was sealed: where its file says that its branch gets previews, it is deployed to the branch's own. */
    @Override
    public void perform(String body) {
        asked.of(Long.parseLong(body)).ifPresent(each -> show(each.version(), each.owner()));
    }

    private void show(Versions.Version version, String owner) {
        Optional<TemplateRow> template = templates.of(version.component());
        if (template.isEmpty()) {
            none.tell(version, "no environments file has a template for previews of " + version.component());
            return;
        }
        try {
            Place place = places.place(version, template.get(), owner);
            requests.request(new Wanted(place, version, Kind.PREVIEW, Optional.empty(),
                    new Cause.Walk(version.component(), version.number(), ""), Optional.empty()));
        } catch (Refusal refused) {
            if (refused.kind() != Refusal.Kind.CONFLICT) {
                throw refused;
            }
            none.tell(version, String.valueOf(refused.getMessage()));
        }
    }

    @Override
    public void gaveUp(String body, String error) {
        LOG.error("version {} gets no preview: {}", body, error);
    }
}
