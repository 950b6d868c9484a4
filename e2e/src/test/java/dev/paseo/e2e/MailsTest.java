package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import jakarta.mail.MessagingException;
import jakarta.mail.internet.MimeMessage;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** A mail server that is away for an hour and more loses nothing; what is gathered comes in one mail. */
class MailsTest {

    private static List<MimeMessage> to(GreenMail mail, String who) {
        return Arrays.stream(mail.getReceivedMessages()).filter(message -> {
            try {
                return message.getAllRecipients()[0].toString().startsWith(who + "@");
            } catch (MessagingException unreadable) {
                throw new IllegalStateException(unreadable);
            }
        }).toList();
    }

    private static void forward(Park park, String by) {
        park.as("admin").post("/api/v1/clock", Map.of("by", by)).good();
    }

    private static long tried(Park park) {
        try {
            return Long.parseLong(
                    park.database.as("select coalesce(max(tries), 0) from notice where mailed_at is null").strip());
        } catch (IOException | InterruptedException failed) {
            throw new IllegalStateException(failed);
        }
    }

    @Test
    void mailsWaitForTheirServerAndWhatIsGatheredComesTogether() throws Exception {
        int port = Processes.freePort();
        GreenMail mail = new GreenMail(new ServerSetup(port, "127.0.0.1", ServerSetup.PROTOCOL_SMTP));
        try (Park park = Park.open("--paseo.clock-may-move=true", "--spring.mail.host=127.0.0.1",
                "--spring.mail.port=" + port)) {
            Repository repository = park.component();
            park.as("approver-2").put("/api/v1/notices/choices",
                    Map.of("event", "waits", "channel", "mail", "delivery", "hourly", "component", "daylight-api"))
                    .good();
            repository.push("developer", "main", Scenario.files());
            park.liveIn("staging", "1.4.1");
            long first = park.promote("1.4.1", "production");
            for (int hours = 0; hours < 2; hours++) {
                long before = tried(park);
                forward(park, "PT1H");
                Await.until("the mail is tried again in vain", () -> tried(park) > before);
            }
            assertEquals(200,
                    HttpClient.newHttpClient()
                            .send(HttpRequest.newBuilder(URI.create(park.address() + "/actuator/health")).build(),
                                    HttpResponse.BodyHandlers.ofString())
                            .statusCode(),
                    "a mail server that is away makes mails wait, not the service");
            mail.start();
            forward(park, "PT1H");
            Await.until("it has come at last",
                    () -> !to(mail, "approver-1").isEmpty() && !to(mail, "approver-2").isEmpty());
            String text = com.icegreen.greenmail.util.GreenMailUtil.getBody(to(mail, "approver-1").getFirst())
                    .replace("=\r\n", "");
            assertTrue(text.contains("What: daylight-api 1.4.1") && text.contains("What changes: 1 commit: ")
                    && text.contains("(developer)"), text);
            park.rule("approver-1", first, false, "Times differ.").good();
            repository.push("developer", "main", Map.of("times", "newer"));
            park.liveIn("staging", "1.4.2");
            park.promote("1.4.2", "production");
            Await.until("whoever wants it at once has it", () -> to(mail, "approver-1").size() == 2);
            assertEquals(1, to(mail, "approver-2").size(), "whoever wants it by the hour waits");
            forward(park, "PT1H");
            Await.until("then it comes", () -> to(mail, "approver-2").size() == 2);
            assertEquals(2, to(mail, "approver-1").size(), "nothing comes twice");
        } finally {
            mail.stop();
        }
    }
}
