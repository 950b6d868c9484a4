package dev.paseo.cli.service;

import java.io.IOException;
import java.net.ConnectException;
import java.net.SocketTimeoutException;
import java.net.UnknownHostException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javax.net.ssl.SSLException;
import tools.jackson.databind.JsonNode;

/** What is wrong, in words for a terminal. */
final class Problems {

    private Problems() {}

    /**
     * The words of a problem (RFC 9457): each field with its name, such as
     * {@code environments.production.to-enter.count: should be 1 to 20}. Empty where it says nothing.
     */
    static Optional<String> words(JsonNode problem) {
        List<String> lines = new ArrayList<>();
        problem.path("errors").forEach(each -> lines.add(line(each)));
        if (lines.isEmpty() && !problem.path("detail").asString("").isEmpty()) {
            lines.add(line(problem));
        }
        return lines.isEmpty() ? Optional.empty() : Optional.of(String.join("\n", lines));
    }

    private static String line(JsonNode wrong) {
        String detail = wrong.path("detail").asString("");
        String field = field(wrong.path("pointer").asString(""));
        return field.isEmpty() || detail.startsWith(field + " ") || detail.startsWith(field + ":") ? detail
                : field + ": " + detail;
    }

    /** A JSON pointer (RFC 6901) as people name the field: its parts with dots between. */
    private static String field(String pointer) {
        return pointer.isEmpty() ? "" : pointer.substring(1).replace('/', '.').replace("~1", "/").replace("~0", "~");
    }

    /** Why a connection could not be made or broke, without the names of Java's classes. */
    static String words(IOException failed) {
        return switch (failed) {
            case UnknownHostException unknown -> "there is no host of that name";
            case SocketTimeoutException late -> "it did not answer in time";
            case ConnectException refused -> "nothing accepts connections there";
            case SSLException untrusted -> "its certificate is not trusted, or it does not speak TLS";
            default -> "the connection broke";
        };
    }
}
