package dev.paseo.service.store;

import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.change.Changes;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.store.StoreMapper.StoreRow;
import dev.paseo.service.store.WatchedStore.Where;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** Opens stores, with their logins where they have one. */
@Component
class OpenedStores {

    private final Web web;
    private final KeptBytes bytes;
    private final JsonMapper json;
    private final Secrets secrets;
    private final Changes changes;

    OpenedStores(Web web, KeptBytes bytes, JsonMapper json, Secrets secrets, Changes changes) {
        this.web = web;
        this.bytes = bytes;
        this.json = json;
        this.secrets = secrets;
        this.changes = changes;
    }

    WatchedStore open(StoreRow row, Where where) {
        RegistryStore.Using using = new RegistryStore.Using(web, bytes, changes, json);
        return switch (where.kind()) {
            case REGISTRY -> new RegistryStore(where,
                    secrets.value("PASEO_STORE_" + row.id(), row.componentId()), using);
            case MAVEN -> new MavenStore(where, using);
            case FOLDER -> new FolderStore(where, using);
        };
    }
}
