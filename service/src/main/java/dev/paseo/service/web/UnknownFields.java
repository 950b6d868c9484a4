package dev.paseo.service.web;

import java.util.Collection;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonParser;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.ValueDeserializer;
import tools.jackson.databind.deser.DeserializationProblemHandler;
import tools.jackson.databind.exc.UnrecognizedPropertyException;

/**
 * A field that a request of the API does not have is refused: whoever writes one means something by it. Agents may be
 * of another release than the service, and are not held to it.
 */
final class UnknownFields extends DeserializationProblemHandler {

    private static final String OF_AGENTS = "dev.paseo.api.";

    @Override
    public boolean handleUnknownProperty(DeserializationContext context, JsonParser parser,
            ValueDeserializer<?> deserializer, Object of, String name) {
        Class<?> type = of instanceof Class<?> itself ? itself : of.getClass();
        if (type.getName().startsWith(OF_AGENTS)) {
            parser.skipChildren();
            return true;
        }
        @Nullable
        Collection<Object> known = deserializer == null ? null : deserializer.getKnownPropertyNames();
        throw UnrecognizedPropertyException.from(parser, of, name, known);
    }
}
