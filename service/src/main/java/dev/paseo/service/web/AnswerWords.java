package dev.paseo.service.web;

import com.fasterxml.jackson.databind.JavaType;
import dev.paseo.core.access.AskedAct;
import dev.paseo.service.asking.Asks;
import dev.paseo.core.deployment.HostState;
import dev.paseo.core.find.Thing;
import dev.paseo.core.history.What;
import dev.paseo.core.pace.Shift;
import dev.paseo.core.pace.TimePart;
import dev.paseo.core.environment.DryRun;
import dev.paseo.core.environment.GateSide;
import dev.paseo.core.gate.Judgement;
import dev.paseo.core.retirement.Retirable;
import dev.paseo.core.text.Word;
import dev.paseo.core.trigger.TriggerDryRun;
import dev.paseo.language.piece.Standing;
import dev.paseo.language.piece.TrialOutcome;
import dev.paseo.service.notice.OwnFollowing;
import dev.paseo.service.database.RecordMapping;
import io.swagger.v3.core.converter.AnnotatedType;
import io.swagger.v3.core.converter.ModelConverter;
import io.swagger.v3.core.converter.ModelConverterContext;
import io.swagger.v3.core.util.Json;
import io.swagger.v3.oas.models.media.Schema;
import io.swagger.v3.oas.models.media.StringSchema;
import java.util.Arrays;
import java.util.Iterator;
import java.util.List;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.annotation.Qualifier;
import org.springframework.boot.http.converter.autoconfigure.ServerHttpMessageConvertersCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.converter.json.JacksonJsonHttpMessageConverter;
import tools.jackson.core.JsonGenerator;
import tools.jackson.databind.SerializationContext;
import tools.jackson.databind.ValueSerializer;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.module.SimpleModule;

/** States and kinds in answers, as their words, and so in the API's own description. */
@Configuration
class AnswerWords {

    private static final List<Class<? extends Enum<?>>> TYPES = Stream.concat(RecordMapping.WORDS.stream(),
            Stream.of(AskedAct.class, Asks.Outcome.class, HostState.Phase.class, Judgement.State.class, TimePart.class,
                    OwnFollowing.Followed.class, Standing.class, DryRun.Outcome.class, TriggerDryRun.Answer.class,
                    GateSide.class,
                    Thing.class, Shift.Kind.class,
                    TrialOutcome.class, What.class, Retirable.class))
            .toList();

    /** Writes what is answered; what is kept in columns stays as it was, for only answers have words. */
    @Bean(defaultCandidate = false)
    JsonMapper answers(JsonMapper mapper) {
        SimpleModule words = new SimpleModule();
        TYPES.forEach(type -> words.addSerializer(type, new ValueSerializer<Enum<?>>() {
            @Override
            public void serialize(Enum<?> constant, JsonGenerator out, SerializationContext context) {
                out.writeString(Word.of(constant));
            }
        }));
        return mapper.rebuild().addModule(words).addHandler(new UnknownFields()).build();
    }

    @Bean
    ServerHttpMessageConvertersCustomizer answering(@Qualifier("answers") JsonMapper answers) {
        return converters -> converters.withJsonConverter(new JacksonJsonHttpMessageConverter(answers));
    }

    @Bean
    ModelConverter described() {
        return new ModelConverter() {
            @Override
            public @Nullable Schema<?> resolve(AnnotatedType type, ModelConverterContext context,
                    Iterator<ModelConverter> others) {
                JavaType java = Json.mapper().constructType(type.getType());
                if (java != null && TYPES.contains(java.getRawClass())) {
                    return new StringSchema()._enum(Arrays.stream(java.getRawClass().getEnumConstants())
                            .map(constant -> Word.of((Enum<?>) constant)).toList());
                }
                return others.hasNext() ? others.next().resolve(type, context, others) : null;
            }
        };
    }
}
