package dev.paseo.service.component;

import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.component.Registration.NewComponent;
import dev.paseo.service.secret.HookSecrets;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.source.SourceCredentials;
import java.util.List;
import org.springframework.stereotype.Component;

/** What a component is given when it is registered: secrets, the secret of its hooks, how its repository is reached. */
@Component
class FirstAccess {

    private final ComponentMapper mapper;
    private final Secrets secrets;
    private final HookSecrets hooks;
    private final SourceCredentials credentials;

    FirstAccess(ComponentMapper mapper, Secrets secrets, HookSecrets hooks, SourceCredentials credentials) {
        this.mapper = mapper;
        this.secrets = secrets;
        this.hooks = hooks;
        this.credentials = credentials;
    }

    /** In the transaction under way; the names of the secrets that it was given. */
    List<String> give(long component, NewComponent wanted) {
        wanted.secrets().forEach(name -> secrets.open(component, name));
        hooks.make(component);
        wanted.repository().ifPresent(repository -> wanted.credentials()
                .ifPresent(how -> credentials.keep(mapper.firstOf(repository), how)));
        return wanted.secrets();
    }

    /** The entry with what the component may have now. */
    AuditTrail.Entry stating(AuditTrail.Entry entry, long component) {
        return secrets.stating(entry, component);
    }
}
