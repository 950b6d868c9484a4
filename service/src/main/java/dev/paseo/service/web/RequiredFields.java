package dev.paseo.service.web;

import java.lang.reflect.Method;
import java.lang.reflect.ParameterizedType;
import java.lang.reflect.RecordComponent;
import java.lang.reflect.Type;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Finds, for every record that the API takes or gives, the fields that are always there: those that are not Optional. */
final class RequiredFields {

    private final Map<String, List<String>> byRecord = new HashMap<>();

    RequiredFields(Collection<Object> controllers) {
        for (Object controller : controllers) {
            for (Method method : controller.getClass().getDeclaredMethods()) {
                visit(method.getGenericReturnType());
                for (Type parameter : method.getGenericParameterTypes()) {
                    visit(parameter);
                }
            }
        }
    }

    private void visit(Type type) {
        if (type instanceof ParameterizedType generic) {
            for (Type argument : generic.getActualTypeArguments()) {
                visit(argument);
            }
        } else if (type instanceof Class<?> plain && plain.isRecord() && !byRecord.containsKey(plain.getSimpleName())) {
            List<String> required = new ArrayList<>();
            byRecord.put(plain.getSimpleName(), required);
            for (RecordComponent component : plain.getRecordComponents()) {
                if (component.getType() != Optional.class) {
                    required.add(component.getName());
                }
                visit(component.getGenericType());
            }
        }
    }

    Optional<List<String>> of(String schema) {
        return Optional.ofNullable(byRecord.get(schema)).filter(fields -> !fields.isEmpty());
    }
}
