package dev.paseo.service.agent;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.settings.Settings;
import java.time.Duration;
import java.time.Instant;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The service's time. It only goes forward; what agents hold is held as long as before. */
@RestController
@RequestMapping("/api/v1/clock")
class ClockController {

    private static final Duration FARTHEST = Duration.ofDays(31);

    record ClockView(Instant now) {}

    /** How far, as an ISO 8601 duration such as {@code PT2H}; at most 31 days at once. */
    record ForwardRequest(Duration by) {}

    private final ServiceClock clock;
    private final WorkBoard board;
    private final Settings settings;
    private final Transactions transactions;
    private final AuditTrail audit;

    ClockController(ServiceClock clock, WorkBoard board, Settings settings, Transactions transactions,
            AuditTrail audit) {
        this.clock = clock;
        this.board = board;
        this.settings = settings;
        this.transactions = transactions;
        this.audit = audit;
    }

    /** Shows the service's time, and by how much it was moved forward. */
    @GetMapping
    ClockView now(@AuthenticationPrincipal Person person) {
        Permission.require(person, Action.LOOK);
        return new ClockView(clock.now());
    }

    /** Moves the service's clock forward, where it was set up for that, as demos and rehearsals are. */
    @PostMapping
    ClockView forward(@AuthenticationPrincipal Person person, @RequestBody ForwardRequest request) {
        Permission.require(person, Action.MANAGE_ACCOUNTS, "move the service's clock");
        if (!settings.clockMayMove()) {
            throw Refusal.conflict("This service's clock cannot be moved: paseo.clock-may-move is not set");
        }
        if (request.by().isNegative() || request.by().isZero() || request.by().compareTo(FARTHEST) > 0) {
            throw Refusal.invalid("/by", "should be more than 0 s and at most " + FARTHEST.toDays() + " d");
        }
        transactions.run(() -> {
            audit.record(AuditTrail.Entry.of(person.name(), "clock moved forward", "clock").with("by",
                    request.by().toString()));
            clock.forward(request.by());
            board.extendAll(request.by());
        });
        return new ClockView(clock.now());
    }
}
