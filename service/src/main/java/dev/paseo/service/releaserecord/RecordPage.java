package dev.paseo.service.releaserecord;

import com.samskivert.mustache.Mustache;
import com.samskivert.mustache.Template;
import dev.paseo.core.text.When;
import dev.paseo.service.releaserecord.ReleaseRecords.ReleaseRecordView;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Map;
import java.util.Objects;
import java.util.regex.Pattern;
import org.springframework.beans.factory.annotation.Qualifier;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** A record as a page made for print: well-formed XHTML, with no part that lies elsewhere. */
@Component
class RecordPage {

    private static final TypeReference<Map<String, Object>> TREE = new TypeReference<>() {};
    private static final Pattern MOMENT = Pattern.compile("\\d{4}-\\d\\d-\\d\\dT\\d\\d:\\d\\d:\\d\\d(\\.\\d+)?Z");
    /** What XML 1.0 does not have. */
    private static final Pattern NO_TEXT = Pattern
            .compile("[^\\t\\n\\r\\x{20}-\\x{D7FF}\\x{E000}-\\x{FFFD}\\x{10000}-\\x{10FFFF}]");

    /** Where a state or a step by itself would not tell enough. */
    private static final Map<String, String> WORDS = Map.of("ahead", "not reached", "left", "not done", "broken",
            "failed", "whole", "check the whole", "settled", "the walk goes on");
    private static final int SHORT = 8;

    private final JsonMapper answers;
    private final String template;

    /** @param answers writes what the API answers: the page has exactly that */
    RecordPage(@Qualifier("answers") JsonMapper answers) {
        this.answers = answers;
        try (InputStream in = Objects
                .requireNonNull(RecordPage.class.getResourceAsStream("/release-record.mustache"))) {
            this.template = new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    /** @param query under which the other forms of the same record are asked for; for a page that is looked at */
    String of(ReleaseRecordView record, String query) {
        ZoneId zone = ZoneId.of(record.zone());
        Template compiled = Mustache.compiler().defaultValue("").zeroIsFalse(true).emptyStringIsFalse(true)
                .withFormatter(value -> text(value, zone)).compile(template);
        Map<String, Object> tree = answers.convertValue(record, TREE);
        tree.put("words", (Mustache.Lambda) (part, out) -> {
            String word = part.execute();
            out.write(WORDS.getOrDefault(word, word.replace('-', ' ')));
        });
        tree.put("query", query);
        tree.put("short", (Mustache.Lambda) (part, out) -> out.write(cut(part.execute())));
        return compiled.execute(tree);
    }

    private static String cut(String digest) {
        return digest.substring(0, Math.min(SHORT, digest.length()));
    }

    private static String text(Object value, ZoneId zone) {
        String text = String.valueOf(value);
        return MOMENT.matcher(text).matches() ? When.exactly(zone, Instant.parse(text))
                : NO_TEXT.matcher(text).replaceAll("\uFFFD");
    }
}
