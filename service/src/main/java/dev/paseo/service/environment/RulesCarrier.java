package dev.paseo.service.environment;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.database.Json;
import dev.paseo.service.loosening.Agreements;
import dev.paseo.service.permission.Permission;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Loads an environments file that a second person has agreed to, where nothing has changed since. */
@Component
class RulesCarrier implements Agreements.Carrier {

    static final String KIND = "rules";

    /** @param base the digest of the environments that it was compared with */
    record File(String text, String base) {}

    private final Loading loading;
    private final Json json;

    RulesCarrier(Loading loading, Json json) {
        this.loading = loading;
        this.json = json;
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public void carryOut(String body, Person by, String agreedBy) {
        Permission.require(by, Action.EDIT_ENVIRONMENT);
        File file = json.read(body, File.class);
        loading.load(file.text(), new Loading.Meant(Optional.of(file.base()), true, Optional.of(agreedBy)), by);
    }
}
