package dev.paseo.service.access;

import dev.paseo.core.text.Sha256;
import dev.paseo.service.access.AccountMapper.AccountRow;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.problem.Refusal;
import java.time.Instant;
import org.springframework.stereotype.Component;

/** How people come by their passwords: from an administrator, by a one-time code, or by the one before. */
@Component
public class SettingPasswords {

    private final AccountMapper mapper;
    private final Passwords passwords;
    private final SigningIn signingIn;
    private final Administration administration;

    SettingPasswords(AccountMapper mapper, Passwords passwords, SigningIn signingIn, Administration administration) {
        this.mapper = mapper;
        this.passwords = passwords;
        this.signingIn = signingIn;
        this.administration = administration;
    }

    /** A password as it is kept. */
    String kept(String password) {
        return passwords.hash(password);
    }

    /**
     * A one-time code, good for a day, with which somebody sets a password; an older one is worth nothing from now on.
     */
    String code(AccountRow account, String by) {
        String code = Tokens.fresh("paseo-code");
        Instant now = administration.now();
        mapper.dropCodes(account.id());
        mapper.addCode(Sha256.hex(code), account.id(), by, now, now.plus(SigningIn.CODE));
        administration.record(AuditTrail.Entry.of(by, "code for a password given", account.name()).with("good for",
                SigningIn.CODE.toHours() + " h"));
        return code;
    }

    /** Sets a password by the code that was given for it; it counts once. */
    public String byCode(String code, String fresh, String address) {
        AccountRow account = signingIn.ofCode(code, address);
        String hash = passwords.hash(fresh);
        administration.run(() -> {
            if (mapper.dropCodes(account.id()) == 0) {
                throw Refusal.signedOut("This code has just been used; ask an administrator for a new one");
            }
            set(account, hash, "a code");
        });
        signingIn.succeeded(account.name());
        return account.name();
    }

    /** Changes a password by the one before. */
    public void change(String name, String current, String fresh, String address) {
        AccountRow account;
        try {
            account = signingIn.check(name, current, address);
        } catch (Refusal refused) {
            throw refused.kind() == Refusal.Kind.SIGNED_OUT
                    ? Refusal.invalid("/current", "The current password is wrong")
                    : refused;
        }
        String hash = passwords.hash(fresh);
        administration.run(() -> set(account, hash, "the one before"));
    }

    /** Sessions end; tokens stay as they are. */
    private void set(AccountRow account, String hash, String by) {
        administration.held(account.name());
        mapper.setPassword(account.id(), hash);
        mapper.endSessions(account.id());
        administration.record(AuditTrail.Entry.of(account.name(), "password changed", account.name()).with("by", by),
                account.name());
    }
}
