package dev.paseo.demo;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import jakarta.mail.BodyPart;
import jakarta.mail.MessagingException;
import jakarta.mail.Multipart;
import jakarta.mail.Part;
import jakarta.mail.internet.MimeMessage;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** A stand-in for a mail server: catches every mail, delivers none, and shows them on a page as they look. */
public final class MailCatcher {

    private final GreenMail mails;

    private MailCatcher(GreenMail mails) {
        this.mails = mails;
    }

    /** Arguments: the port of SMTP and that of the page, both on loopback. */
    public static void main(String[] arguments) throws IOException {
        GreenMail mails = new GreenMail(
                new ServerSetup(Integer.parseInt(arguments[0]), "127.0.0.1", ServerSetup.PROTOCOL_SMTP));
        mails.start();
        MailCatcher catcher = new MailCatcher(mails);
        HttpServer page = HttpServer
                .create(new InetSocketAddress(InetAddress.getLoopbackAddress(), Integer.parseInt(arguments[1])), 0);
        page.createContext("/", catcher::answer);
        page.start();
    }

    private void answer(HttpExchange exchange) throws IOException {
        String path = exchange.getRequestURI().getPath();
        byte[] body;
        try {
            body = (path.matches("/[0-9]+") ? mail(Integer.parseInt(path.substring(1))) : list())
                    .getBytes(StandardCharsets.UTF_8);
        } catch (MessagingException broken) {
            body = ("This mail cannot be read: " + escape(String.valueOf(broken.getMessage())))
                    .getBytes(StandardCharsets.UTF_8);
        }
        exchange.getResponseHeaders().set("Content-Type", "text/html; charset=utf-8");
        exchange.getResponseHeaders().set("Content-Security-Policy",
                "default-src 'none'; style-src 'unsafe-inline'; frame-src 'self'");
        exchange.sendResponseHeaders(200, body.length);
        try (exchange) {
            exchange.getResponseBody().write(body);
        }
    }

    private String list() {
        MimeMessage[] all = mails.getReceivedMessages();
        String rows = IntStream.range(0, all.length).mapToObj(at -> all.length - 1 - at).map(at -> {
            try {
                return "<li><a href=\"/" + at + "\">" + escape(all[at].getSubject()) + "</a> <span>to "
                        + escape(String.valueOf(all[at].getAllRecipients()[0])) + ", " + all[at].getSentDate()
                        + "</span></li>";
            } catch (MessagingException broken) {
                return "<li>one that cannot be read</li>";
            }
        }).collect(Collectors.joining("\n"));
        return "<!doctype html><html lang=\"en\"><meta "
                + "charset=\"utf-8\"><title>Mails</title><style>body{font:15px/24px "
                + "system-ui,sans-serif;max-width:760px;margin:32px auto;padding:0 16px}"
                + "li{padding:8px 0;border-top:1px solid "
                + "#ddd;list-style:none}ul{padding:0}span{color:#667;display:block;font-size:13px;"
                + "line-height:18px}</style><h1>"
                + all.length
                + " mails were caught</h1><ul>" + rows + "</ul></html>";
    }

    private String mail(int at) throws MessagingException, IOException {
        MimeMessage[] all = mails.getReceivedMessages();
        return at < all.length ? part(all[at], "text/html").or(() -> Optional.of("It has no HTML.")).get()
                : "There is no such mail.";
    }

    /** The first part of this type, also within others. */
    private static Optional<String> part(Part part, String type) throws MessagingException, IOException {
        if (part.isMimeType(type)) {
            return Optional.of(String.valueOf(part.getContent()));
        }
        if (part.getContent() instanceof Multipart several) {
            for (int at = 0; at < several.getCount(); at++) {
                BodyPart inner = several.getBodyPart(at);
                Optional<String> found = part(inner, type);
                if (found.isPresent()) {
                    return found;
                }
            }
        }
        return Optional.empty();
    }

    private static String escape(String text) {
        return text.replace("&", "&amp;").replace("<", "&lt;").replace("\"", "&quot;");
    }
}
