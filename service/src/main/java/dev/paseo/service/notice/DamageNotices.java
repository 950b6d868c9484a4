package dev.paseo.service.notice;

import dev.paseo.service.bytes.Damage;
import dev.paseo.service.bytes.DamagedBytes;
import java.util.List;
import org.springframework.stereotype.Component;

/** Tells administrators of damaged bytes. */
@Component
class DamageNotices implements Damage.Hearer {

    private final Notices notices;

    DamageNotices(Notices notices) {
        this.notices = notices;
    }

    @Override
    public void damaged(DamagedBytes damage, List<String> versions) {
        String needed = versions.isEmpty() ? "No version needs them."
                : "Needed by " + String.join(", ", versions) + ".";
        notices.tellAdministrators(Notices.Said.of(NoticeKind.DAMAGED, "",
                "Kept bytes are damaged: " + damage.wanted().substring(0, 12),
                "The bytes " + damage.wanted() + " have the digest " + damage.found() + " now. " + needed
                        + " They are refused wherever they are asked for, until the right bytes are put back from a "
                        + "backup or arrive again.",
                "/", damage.wanted()));
    }
}
