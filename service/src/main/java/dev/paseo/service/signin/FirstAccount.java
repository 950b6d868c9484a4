package dev.paseo.service.signin;

import dev.paseo.service.access.AccountChanges;
import dev.paseo.service.access.Accounts;
import dev.paseo.service.access.Tokens;
import dev.paseo.service.settings.Settings;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationStartedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Component;

/** Makes the first account, {@code admin}, and leaves its password in a file that only the service's user may read. */
@Component
class FirstAccount {

    private static final Logger LOG = LoggerFactory.getLogger(FirstAccount.class);

    private final Accounts accounts;
    private final AccountChanges changes;
    private final Path file;

    FirstAccount(Accounts accounts, AccountChanges changes, Settings settings) {
        this.accounts = accounts;
        this.changes = changes;
        this.file = settings.data().resolve("admin-password");
    }

    @EventListener(ApplicationStartedEvent.class)
    void make() throws IOException {
        if (!accounts.none()) {
            return;
        }
        String password = Tokens.fresh("admin");
        try {
            changes.add(new AccountChanges.NewAccount("admin", Optional.of(password), List.of(), List.of(),
                    List.of("administrator")), "paseo");
        } catch (DuplicateKeyException another) {
            return;
        }
        Path fresh = Files.createTempFile(file.getParent(), "password", "",
                PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
        Files.writeString(fresh, password + "\n");
        Files.move(fresh, file, java.nio.file.StandardCopyOption.ATOMIC_MOVE);
        LOG.info("the account admin was made; its password is in {}", file);
    }
}
