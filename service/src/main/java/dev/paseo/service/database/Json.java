package dev.paseo.service.database;

import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** JSON as it is kept in columns. */
@Component
public class Json {

    private final JsonMapper mapper;

    public Json(JsonMapper mapper) {
        this.mapper = mapper;
    }

    public String write(Object value) {
        return mapper.writeValueAsString(value);
    }

    public <T> T read(String text, Class<T> type) {
        return mapper.readValue(text, type);
    }

    public <T> T read(String text, TypeReference<T> type) {
        return mapper.readValue(text, type);
    }
}
