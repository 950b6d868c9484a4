package dev.paseo.service.component;

import dev.paseo.service.database.Json;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.source.Credentials;
import java.util.OptionalLong;
import org.springframework.stereotype.Component;

/** How a component's repository is reached; kept as a secret under a reserved name. */
@Component
class SourceCredentials {

    private static final String NAME = "PASEO_SOURCE";

    private final Secrets secrets;
    private final Json json;

    SourceCredentials(Secrets secrets, Json json) {
        this.secrets = secrets;
        this.json = json;
    }

    Credentials of(long component) {
        return secrets.value(NAME, component).map(text -> json.read(text, Credentials.class)).orElse(Credentials.NONE);
    }

    void keep(long component, Credentials credentials) {
        secrets.set(NAME, json.write(credentials), component, 0, OptionalLong.empty());
    }
}
