package dev.paseo.service.pace;

import dev.paseo.core.deployment.Kind;
import dev.paseo.core.environment.Rules;
import dev.paseo.core.gate.Criterion;
import dev.paseo.core.pace.LeadTime.Obstacles;
import dev.paseo.core.pace.Span;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.pace.PaceMapper.MadeRow;
import dev.paseo.service.pace.PaceMapper.SpanRow;
import dev.paseo.service.restraint.ClosedPeriods;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** What stood in the way of a promotion, and who was asked: by the rules as they were when it was requested. */
@Component
class InTheWay {

    private final PaceMapper mapper;
    private final Environments environments;
    private final ClosedPeriods periods;

    InTheWay(PaceMapper mapper, Environments environments, ClosedPeriods periods) {
        this.mapper = mapper;
        this.environments = environments;
        this.periods = periods;
    }

    Obstacles of(MadeRow made) {
        Instant from = made.requested();
        Instant to = Objects.requireNonNullElse(made.started(), from);
        if (!from.isBefore(to)) {
            return Obstacles.NONE;
        }
        List<Span> closed = new ArrayList<>(spans(mapper.closures(made.environment(), from, to)));
        periods.around(environments.named(made.environmentName()), from)
                .forEach(period -> closed.add(new Span(period.from(), period.until())));
        criteria(made, Criterion.Open.class).flatMap(open -> open.hours().closed(from, to).stream())
                .forEach(hours -> closed.add(new Span(hours.from(), hours.until())));
        return new Obstacles(closed, spans(mapper.holds(made.place(), from, to)),
                spans(mapper.others(made.place(), made.deployment(), from, to)));
    }

    /** Who had to say yes: at the gate before the environment, and at those onward from what it follows. */
    List<Criterion.Approvals> wanted(MadeRow made) {
        return criteria(made, Criterion.Approvals.class).toList();
    }

    private <C extends Criterion> Stream<C> criteria(MadeRow made, Class<C> type) {
        Rules rules = environments.rulesAsOf(made.environment(), made.requested());
        Stream<Criterion> onward = rules.followed().stream().flatMap(name -> environments.all().stream()
                .filter(each -> each.name().equals(name)))
                .flatMap(each -> environments.rulesAsOf(each.id(), made.requested()).toGoOn(made.componentName())
                        .stream());
        return Stream.concat(rules.toEnter(Kind.PROMOTION, made.componentName()).stream(), onward)
                .filter(type::isInstance).map(type::cast);
    }

    private static List<Span> spans(List<SpanRow> rows) {
        return rows.stream().map(row -> new Span(row.fromAt(), row.toAt())).toList();
    }
}
