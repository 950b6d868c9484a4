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
import org.springframework.core.annotation.AnnotatedElementUtils;
import org.springframework.web.bind.annotation.RequestMapping;

/**
 * Finds, for every record that the API takes or gives, the fields that are always there: those that are not Optional.
 */
final class RequiredFields {

    private final Map<String, List<String>> byRecord = new HashMap<>();
    private final Map<String, Class<?>> types = new HashMap<>();

    RequiredFields(Collection<Object> controllers) {
        for (Object controller : controllers) {
            for (Method method : controller.getClass().getDeclaredMethods()) {
                if (!AnnotatedElementUtils.hasAnnotation(method, RequestMapping.class)) {
                    continue;
                }
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
        } else if (type instanceof Class<?> plain && plain.isRecord() && isNew(plain)) {
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

    /** The description knows records by their simple names: two of one name would become one. */
    private boolean isNew(Class<?> type) {
        Class<?> known = types.putIfAbsent(type.getSimpleName(), type);
        if (known != null && known != type) {
            throw new IllegalStateException(
                    "the API shows two records of one name: " + known.getName() + " and " + type.getName());
        }
        return known == null;
    }

    Optional<List<String>> of(String schema) {
        return Optional.ofNullable(byRecord.get(schema)).filter(fields -> !fields.isEmpty());
    }
}
