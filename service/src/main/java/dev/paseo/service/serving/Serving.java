package dev.paseo.service.serving;

import dev.paseo.core.access.Person;
import dev.paseo.service.App;
import dev.paseo.service.access.Accounts;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.quota.Quotas;
import dev.paseo.service.settings.Settings;
import jakarta.mail.MessagingException;
import jakarta.mail.internet.MimeMessage;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.lang.management.ManagementFactory;
import java.nio.file.FileStore;
import java.nio.file.Files;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.mail.MailException;
import org.springframework.mail.javamail.JavaMailSender;
import org.springframework.mail.javamail.JavaMailSenderImpl;
import org.springframework.mail.javamail.MimeMessageHelper;
import org.springframework.stereotype.Component;

/** What holds for all of the service, and a mail by which one sees whether mails arrive. */
@Component
class Serving {

    /**
     * The service as a whole.
     *
     * @param version       absent where it was not built as a release
     * @param started       when the process that answers began
     * @param database      the database's own name of its version
     * @param databaseBytes what tables and indexes take up, in bytes, as the database estimates it
     * @param freeBytes     what is free where artifacts, logs and reports are kept, in bytes
     * @param wholeBytes    the size of that disk, in bytes
     * @param mailServer    absent where none is set: no mails go out
     * @param mailsDue      mails that are due and have not gone out
     * @param replicas      the processes that serve, and those that did within a day
     * @param quotaBytes    how much a component may have kept, in bytes; nothing of it is deleted by itself
     * @param kept          the ten components that have kept the most
     */
    record ServingView(Optional<String> version, Instant started, String database, long databaseBytes, long freeBytes,
            long wholeBytes, Optional<String> mailServer, long mailsDue, List<ReplicaView> replicas,
            long quotaBytes, List<KeptBytes> kept) {}

    /** A process that serves; {@code seen}: when it last said so, as it does every second. */
    record ReplicaView(String name, Instant started, Instant seen) {}

    /** How much a component has kept, in bytes. */
    record KeptBytes(String component, long bytes) {}

    private static final int LARGEST = 10;

    /** To which address it went. */
    record MailTestView(String to) {}

    private final ServingMapper mapper;
    private final ObjectProvider<JavaMailSender> sender;
    private final Settings settings;
    private final ServiceClock clock;
    private final Accounts accounts;
    private final Quotas quotas;

    Serving(ServingMapper mapper, ObjectProvider<JavaMailSender> sender, Settings settings, ServiceClock clock,
            Accounts accounts, Quotas quotas) {
        this.mapper = mapper;
        this.sender = sender;
        this.settings = settings;
        this.clock = clock;
        this.accounts = accounts;
        this.quotas = quotas;
    }

    ServingView now() {
        try {
            FileStore disk = Files.getFileStore(settings.data());
            return new ServingView(Optional.ofNullable(App.class.getPackage().getImplementationVersion()),
                    Instant.ofEpochMilli(ManagementFactory.getRuntimeMXBean().getStartTime()), mapper.database(),
                    mapper.bytes(), disk.getUsableSpace(), disk.getTotalSpace(), server(),
                    mapper.mailsDue(clock.now()), mapper.replicas().stream()
                            .map(row -> new ReplicaView(row.name(), row.startedAt(), row.seenAt())).toList(),
                    quotas.quota().most(), quotas.largest(LARGEST).entrySet().stream()
                            .map(each -> new KeptBytes(each.getKey(), each.getValue())).toList());
        } catch (IOException unread) {
            throw new UncheckedIOException(unread);
        }
    }

    private Optional<String> server() {
        return Optional.ofNullable(sender.getIfAvailable()).map(mail -> mail instanceof JavaMailSenderImpl known
                ? known.getHost() + (known.getPort() > 0 ? ":" + known.getPort() : "")
                : "set");
    }

    /** Sends one at once, to whoever asks, and says what the mail server said where it does not take it. */
    MailTestView mail(Person person) {
        JavaMailSender mail = sender.getIfAvailable();
        if (mail == null) {
            throw Refusal.conflict("No mail server is set, so no mails go out: spring.mail.host");
        }
        String to = accounts.addressOf(person.id())
                .orElseThrow(() -> Refusal.conflict(person.name() + " has no mail address to which it could go"));
        try {
            MimeMessage message = mail.createMimeMessage();
            MimeMessageHelper helper = new MimeMessageHelper(message, "UTF-8");
            helper.setFrom(settings.mailFrom());
            helper.setTo(to);
            helper.setSubject("Mails of Paseo arrive");
            helper.setText("Hello " + person.name() + ",\n\nyou asked at " + settings.address()
                    + " whether mails arrive. This one has.\n");
            message.setHeader("Auto-Submitted", "auto-generated");
            mail.send(message);
        } catch (MailException | MessagingException failed) {
            throw Refusal.unavailable("The mail server did not take it: " + failed.getMessage());
        }
        return new MailTestView(to);
    }
}
