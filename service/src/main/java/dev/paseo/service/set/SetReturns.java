package dev.paseo.service.set;

import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.Places;
import dev.paseo.service.version.Versions;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Members of a set that go back with it. */
@Component
class SetReturns {

    private static final Logger LOG = LoggerFactory.getLogger(SetReturns.class);

    private final SetMapper mapper;
    private final Deployments deployments;
    private final Places places;

    SetReturns(SetMapper mapper, Deployments deployments, Places places) {
        this.mapper = mapper;
        this.deployments = deployments;
        this.places = places;
    }

    /**
     * What is live, waits or is under way of a member goes back; where somebody has deployed another since, it is left.
     */
    void goBack(SetMapper.PromotionRow promotion, Versions.Version member, String why) {
        mapper.deployments(promotion.id()).stream().filter(row -> row.versionId() == member.id()).findFirst()
                .ifPresent(row -> places
                        .change(deployments.get(row.deployment()).placeId(),
                                place -> Optional.of(new PlaceEvent.GoesBack(row.deployment(), why)))
                        .ifPresent(refused -> LOG.warn("{} {} does not go back with its set: {}", member.component(),
                                member.number(), refused)));
    }
}
