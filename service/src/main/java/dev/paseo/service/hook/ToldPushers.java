package dev.paseo.service.hook;

import dev.paseo.service.access.Accounts;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.trigger.Pushes;
import java.util.List;
import org.springframework.stereotype.Component;

/** Who pushed what the repository did not say, told by somebody who may. */
@Component
class ToldPushers {

    private final Pushes pushes;
    private final Accounts accounts;
    private final Changes changes;

    ToldPushers(Pushes pushes, Accounts accounts, Changes changes) {
        this.pushes = pushes;
        this.accounts = accounts;
        this.changes = changes;
    }

    /** Somebody who may say whose address is whose says who pushed a commit. */
    void told(RegisteredComponent component, String commit, String account, String by) {
        String pushed = accounts.named(account).name();
        changes.run(() -> {
            List<String> branches = pushes.tell(component, commit, pushed);
            if (branches.isEmpty()) {
                throw Refusal.notFound(component.name() + " has no push with the commit " + commit
                        + " whose pusher is unknown");
            }
            accounts.judgeAgain(changes.now());
            changes.record(AuditTrail.Entry.of(by, "pusher told", component.name()).with("commit", commit)
                    .with("branches", String.join(", ", branches)).with("pushed by", pushed));
        });
    }
}
