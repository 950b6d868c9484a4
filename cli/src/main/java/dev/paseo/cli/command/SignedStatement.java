package dev.paseo.cli.command;

import dev.paseo.cli.service.Failure;
import dev.paseo.core.origin.SignedEnvelope;
import dev.paseo.core.origin.Statement;
import dev.paseo.core.signature.KeyRing;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Base64;
import java.util.Optional;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * A statement in its envelope, as {@code paseo statement} prints it.
 *
 * @param whole what is stated, as JSON
 */
record SignedStatement(SignedEnvelope envelope, Statement statement, JsonNode whole) {

    private static final JsonMapper JSON = JsonMapper.shared();

    static SignedStatement of(Path file) {
        try {
            return of(JSON.readTree(TrailCommands.text(file)));
        } catch (JacksonException | IllegalArgumentException none) {
            throw new Failure(Failure.Kind.USAGE, file + " holds no statement, as paseo statement prints one");
        }
    }

    /** @throws IllegalArgumentException where it is none */
    static SignedStatement of(JsonNode json) {
        SignedEnvelope envelope = new SignedEnvelope(json.path("payloadType").asString(""),
                Base64.getDecoder().decode(json.path("payload").asString("")),
                json.path("signatures").valueStream().map(each -> new SignedEnvelope.Signed(
                        each.path("keyid").asString(""), each.path("sig").asString(""))).toList());
        JsonNode whole = JSON.readTree(new String(envelope.payload(), StandardCharsets.UTF_8));
        if (!whole.isObject()) {
            throw new IllegalArgumentException("no statement");
        }
        return new SignedStatement(envelope, new Statement(whole.path("_type").asString(""),
                whole.path("predicateType").asString(""), whole.path("subject").valueStream()
                        .map(each -> new Statement.Subject(each.path("name").asString(""),
                                each.path("digest").path("sha256").asString("")))
                        .toList()),
                whole);
    }

    /** Why it is not to be believed of a file; empty where it is. */
    Optional<String> reasonAgainst(String key, String sha256) {
        try {
            return statement.reasonAgainst(envelope, KeyRing.of(key), sha256);
        } catch (IllegalArgumentException noKey) {
            throw new Failure(Failure.Kind.USAGE, "The key that was given is none: " + noKey.getMessage());
        }
    }

    /** When the key that signed it was replaced; empty: it is the newest. */
    Optional<Instant> replaced(String key) {
        return envelope.signer(KeyRing.of(key)).flatMap(KeyRing.Term::until);
    }
}
