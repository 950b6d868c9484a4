package dev.paseo.service.serving;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.core.access.Person;
import dev.paseo.core.quota.Quota;
import dev.paseo.service.access.Accounts;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.quota.Quotas;
import dev.paseo.service.settings.Settings;
import jakarta.mail.internet.MimeMessage;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.mail.MailSendException;
import org.springframework.mail.javamail.JavaMailSender;
import org.springframework.mail.javamail.JavaMailSenderImpl;

class ServingTest {

    @TempDir
    Path data;

    private final RealDatabase database = RealDatabase.get();
    private final ServingMapper mapper = database.mapper(ServingMapper.class);
    private final JavaMailSenderImpl mail = mock(JavaMailSenderImpl.class);
    private final Settings settings = mock(Settings.class);
    private final ServiceClock clock = mock(ServiceClock.class);
    private final Accounts accounts = mock(Accounts.class);
    private final Quotas quotas = mock(Quotas.class);
    private final long account = database.rows().account();
    private final Person person = new Person(account, database.name("account", account), Set.of(), List.of());

    @BeforeEach
    void outside() {
        when(settings.data()).thenReturn(data);
        when(settings.mailFrom()).thenReturn("paseo@park.example");
        when(settings.address()).thenReturn("http://127.0.0.1:7600");
        when(clock.now()).thenReturn(Rows.NOON);
        when(quotas.quota()).thenReturn(new Quota(1000));
        when(quotas.largest(10)).thenReturn(Map.of("daylight-api", 7L));
        when(mail.createMimeMessage()).thenReturn(new MimeMessage((jakarta.mail.Session) null));
        when(mail.getHost()).thenReturn("post.park.example");
    }

    @SuppressWarnings("unchecked")
    private Serving serving(boolean mails) {
        ObjectProvider<JavaMailSender> sender = mock(ObjectProvider.class);
        when(sender.getIfAvailable()).thenReturn(mails ? mail : null);
        return new Serving(mapper, sender, settings, clock, accounts, quotas);
    }

    private String refused(Serving serving) {
        return String.valueOf(assertThrows(Refusal.class, () -> serving.mail(person)).getMessage());
    }

    @Test
    void itSaysHowLargeItIsAndWhetherMailsGoOut() {
        Serving.ServingView view = serving(true).now();
        assertTrue(view.database().contains("MariaDB"), view.database());
        assertTrue(view.databaseBytes() > 0 && view.freeBytes() > 0 && view.wholeBytes() >= view.freeBytes());
        assertEquals("post.park.example", view.mailServer().orElseThrow());
        assertTrue(serving(false).now().mailServer().isEmpty());
        assertEquals(1000, view.quotaBytes());
        assertEquals(List.of(new Serving.KeptBytes("daylight-api", 7)), view.kept());
    }

    @Test
    void aMailGoesToWhoeverAsks() {
        assertEquals("No mail server is set, so no mails go out: spring.mail.host", refused(serving(false)));
        assertEquals(person.name() + " has no mail address to which it could go", refused(serving(true)));
        String address = person.name() + "@park.example";
        when(accounts.addressOf(account)).thenReturn(Optional.of(address));
        assertEquals(address, serving(true).mail(person).to());
        verify(mail).send(any(MimeMessage.class));
        doThrow(new MailSendException("421 not today")).when(mail).send(any(MimeMessage.class));
        assertEquals("The mail server did not take it: 421 not today", refused(serving(true)));
    }
}
