package dev.paseo.service.outside;

import dev.paseo.core.text.Sha256;
import dev.paseo.core.text.Word;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.service.change.Changes;
import dev.paseo.core.gate.Criterion;
import dev.paseo.core.text.Shortened;
import dev.paseo.service.access.Tokens;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.database.Json;
import dev.paseo.service.engine.EffectHandler;
import dev.paseo.service.engine.Effects;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.settings.Settings;
import dev.paseo.service.signature.SignedPost;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;
import org.springframework.stereotype.Component;

/**
 * Asks those outside, by a request that is signed per Standard Webhooks, and takes their answer by the token that came
 * with the question. A question that cannot be sent is tried again; the criterion says so meanwhile.
 */
@Component
public class OutsideAsking implements EffectHandler {

    private static final int LONGEST = 1000;

    /** What is to be asked. */
    private record Question(long deployment, String name, String address) {}

    private final OutsideMapper mapper;
    private final Effects effects;
    private final Secrets secrets;
    private final Settings settings;
    private final Around around;

    /** How it is written down. */
    @Component("outsideAround")
    record Around(Changes changes, Json json, SignedPost post) {}

    OutsideAsking(OutsideMapper mapper, Effects effects, Secrets secrets, Settings settings, Around around) {
        this.mapper = mapper;
        this.effects = effects;
        this.secrets = secrets;
        this.settings = settings;
        this.around = around;
    }

    static String secretName(String environment, String name) {
        return "PASEO_OUTSIDE_" + Sha256.hex(environment + "/" + name).substring(0, 40);
    }

    /** Asks, once, in the transaction under way. */
    public void ask(long deployment, Criterion.Outside outside) {
        if (mapper.ask(deployment, outside.name(), Sha256.hex(Tokens.fresh("paseo-answer")),
                around.changes().now()) == 1) {
            effects.add("question " + deployment + " " + outside.name(),
                    "question of deployment " + deployment + " to " + outside.name(), kind(),
                    around.json().write(new Question(deployment, outside.name(), outside.address())));
        }
    }

    @Override
    public String kind() {
        return "ask-outside";
    }

    @Override
    public void perform(String body) {
        Question question = around.json().read(body, Question.class);
        OutsideMapper.AboutRow about = mapper.about(question.deployment());
        if (about.status() != DeploymentStatus.WAITING) {
            return;
        }
        String token = Tokens.fresh("paseo-answer");
        if (mapper.asked(question.deployment(), question.name(), Sha256.hex(token), "asked") == 0) {
            return;
        }
        String key = secrets.value(secretName(about.environment(), question.name()), 0).orElseThrow(
                () -> new IllegalStateException("no secret is set to sign questions to " + question.name() + " with"));
        Map<String, Object> asked = new LinkedHashMap<>();
        asked.put("type", "dev.paseo.question.1");
        asked.put("deployment", question.deployment());
        asked.put("component", about.component());
        asked.put("version", about.version());
        asked.put("environment", about.environment());
        asked.put("requestedBy", about.requestedBy() == null ? "the walk" : about.requestedBy());
        asked.put("link", settings.address() + "/deployments/" + question.deployment());
        asked.put("answer", settings.address() + "/hooks/answers/" + token);
        try {
            int status = around.post()
                    .send(new SignedPost.Message(question.address(), "application/json",
                            "question-" + question.deployment() + "-" + question.name(), key,
                            around.json().write(asked).getBytes(StandardCharsets.UTF_8)));
            if (status / 100 != 2) {
                throw new IllegalStateException(question.address() + " answered with status " + status);
            }
        } catch (IOException failed) {
            throw new UncheckedIOException(question.address() + " does not answer: " + failed.getMessage(), failed);
        } catch (InterruptedException stop) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("stopped", stop);
        }
    }

    @Override
    public void gaveUp(String body, String error) {
        Question question = around.json().read(body, Question.class);
        mapper.asked(question.deployment(), question.name(), Sha256.hex(Tokens.fresh("paseo-answer")),
                "it could not be asked: " + (Shortened.to(error, 500)));
        mapper.wake(mapper.about(question.deployment()).placeId(), around.changes().now());
    }

    /** Somebody outside answers; the gate is judged again. */
    void answer(String token, boolean yes, String words) {
        around.changes().run(() -> {
            OutsideMapper.AskedRow asked = mapper.byToken(Sha256.hex(token))
                    .orElseThrow(() -> Refusal.notFound("This question is unknown, or was asked again since"));
            OutsideMapper.AboutRow about = mapper.about(asked.deployment());
            if (asked.answeredAt() != null || about.status() != DeploymentStatus.WAITING) {
                throw Refusal.conflict(asked.answeredAt() != null ? "This was answered already"
                        : "Deployment " + asked.deployment() + " no longer waits: it is " + Word.of(about.status()));
            }
            mapper.answer(asked.id(), yes, Shortened.to(words, LONGEST), around.changes().now());
            mapper.wake(about.placeId(), around.changes().now());
            around.changes()
                    .record(AuditTrail.Entry
                            .of(asked.name(), yes ? "said yes" : "said no", about.component() + " " + about.version())
                            .in(about.environment())
                            .because(words).with("deployment", Long.toString(asked.deployment())));
        });
    }
}
