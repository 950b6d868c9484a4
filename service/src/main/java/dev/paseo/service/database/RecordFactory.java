package dev.paseo.service.database;

import java.lang.reflect.Constructor;
import java.util.List;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentMap;
import org.apache.ibatis.reflection.ReflectionException;
import org.apache.ibatis.reflection.factory.DefaultObjectFactory;
import org.jspecify.annotations.Nullable;

/** Makes records of rows; MyBatis's own factory looks for the constructor again for every row. */
final class RecordFactory extends DefaultObjectFactory {

    private static final long serialVersionUID = 1L;

    private final transient ConcurrentMap<Class<?>, Constructor<?>> constructors = new ConcurrentHashMap<>();

    @Override
    public <T> T create(Class<T> type, @Nullable List<Class<?>> types, @Nullable List<Object> values) {
        return type.isRecord() && types != null && values != null ? made(type, types, values)
                : super.create(type, types, values);
    }

    private <T> T made(Class<T> type, List<Class<?>> types, List<Object> values) {
        try {
            return type.cast(constructors.computeIfAbsent(type, each -> constructor(each, types))
                    .newInstance(values.toArray()));
        } catch (ReflectiveOperationException | IllegalArgumentException wrong) {
            throw new ReflectionException("A " + type.getName() + " cannot be made of " + values, wrong);
        }
    }

    private static Constructor<?> constructor(Class<?> type, List<Class<?>> types) {
        try {
            Constructor<?> found = type.getDeclaredConstructor(types.toArray(Class<?>[]::new));
            found.setAccessible(true);
            return found;
        } catch (NoSuchMethodException none) {
            throw new ReflectionException(type.getName() + " has no constructor for " + types, none);
        }
    }
}
