package dev.paseo.service.set;

import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.text.Word;
import dev.paseo.service.engine.Effects;
import dev.paseo.service.place.SetMembership;
import java.util.List;
import org.springframework.stereotype.Component;

/** Which deployments are of which set. */
@Component
class Membership implements SetMembership {

    private final SetMapper mapper;
    private final Effects effects;

    Membership(SetMapper mapper, Effects effects) {
        this.mapper = mapper;
        this.effects = effects;
    }

    @Override
    public List<Long> members(long promotion) {
        return mapper.members(mapper.promotion(promotion).setId());
    }

    @Override
    public void belongs(long deployment, long promotion) {
        mapper.belongs(deployment, promotion, mapper.promotion(promotion).setId());
    }

    @Override
    public void approved(long promotion, String subjects) {
        mapper.approved(promotion, subjects);
    }

    @Override
    public void lookAgain(long promotion, long deployment, DeploymentStatus status) {
        effects.add("set promotion " + promotion,
                "set promotion " + promotion + " after deployment " + deployment + " " + Word.of(status),
                SetPromotions.KIND,
                Long.toString(promotion));
    }
}
