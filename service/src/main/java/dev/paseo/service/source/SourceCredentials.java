package dev.paseo.service.source;

import dev.paseo.service.database.Json;
import dev.paseo.service.secret.Secrets;
import java.util.OptionalLong;
import org.springframework.stereotype.Component;

/** How a component's repository is reached; kept as a secret under a reserved name. */
@Component
public class SourceCredentials {

    private static final String NAME = "PASEO_SOURCE";

    private final Secrets secrets;
    private final Json json;

    SourceCredentials(Secrets secrets, Json json) {
        this.secrets = secrets;
        this.json = json;
    }

    public SourceAccess of(long component) {
        return secrets.value(NAME, component).map(text -> json.read(text, SourceAccess.class))
                .orElse(SourceAccess.NONE);
    }

    /** In place of what was kept; {@link SourceAccess#NONE} leaves nothing kept. */
    public void keep(long component, SourceAccess credentials) {
        if (credentials.equals(SourceAccess.NONE)) {
            secrets.forget(NAME, component);
            return;
        }
        secrets.set(NAME, json.write(credentials), Secrets.Scope.of(component, 0), OptionalLong.empty());
    }
}
