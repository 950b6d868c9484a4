package dev.paseo.service.database;

import dev.paseo.core.environment.Passage;
import dev.paseo.core.run.StageStatus;
import dev.paseo.core.run.RunStatus;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.deployment.SetCourse;
import java.lang.reflect.RecordComponent;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.apache.ibatis.mapping.ResultFlag;
import org.apache.ibatis.mapping.ResultMap;
import org.apache.ibatis.mapping.ResultMapping;
import org.apache.ibatis.session.Configuration;
import org.mybatis.spring.SqlSessionFactoryBean;
import org.mybatis.spring.boot.autoconfigure.MybatisProperties;
import org.mybatis.spring.boot.autoconfigure.SqlSessionFactoryBeanCustomizer;
import org.springframework.stereotype.Component;

/**
 * Maps columns to the components of records by name, once for each statement. MyBatis's own mapping by the names of
 * constructor arguments compares every column with every argument again for every row, which took two thirds of reading
 * a long list.
 */
@Component
public class RecordMapping implements SqlSessionFactoryBeanCustomizer {

    /** The types whose constants stand in rows and answers as their words. Others stand there by their names. */
    public static final List<Class<? extends Enum<?>>> WORDS = List.of(DeploymentStatus.class, Kind.class,
            SetCourse.Status.class, Passage.Status.class, RunStatus.class, StageStatus.class);

    private final MybatisProperties properties;

    RecordMapping(MybatisProperties properties) {
        this.properties = properties;
    }

    @Override
    public void customize(SqlSessionFactoryBean factory) {
        Records records = new Records();
        properties.getConfiguration().applyTo(records);
        factory.setConfiguration(records);
    }

    /**
     * Gives a record that is a statement's result a mapping of its own; {@code liveAt} comes from the column {@code
     * live_at}.
     */
    private static final class Records extends Configuration {

        Records() {
            setObjectFactory(new RecordFactory());
            getTypeHandlerRegistry().register(Instant.class, new InstantHandler());
            WORDS.forEach(this::words);
        }

        @SuppressWarnings({"unchecked", "rawtypes"})
        private void words(Class<? extends Enum<?>> type) {
            getTypeHandlerRegistry().register((Class) type, new WordHandler(type));
        }

        @Override
        public void addResultMap(ResultMap map) {
            boolean plain = map.getType().isRecord() && map.getResultMappings().isEmpty();
            super.addResultMap(plain
                    ? new ResultMap.Builder(this, map.getId(), map.getType(), components(map.getType()), false).build()
                    : map);
        }

        private List<ResultMapping> components(Class<?> type) {
            List<ResultMapping> components = new ArrayList<>();
            for (RecordComponent component : type.getRecordComponents()) {
                components.add(new ResultMapping.Builder(this, component.getName(), column(component.getName()),
                        component.getType())
                        .flags(List.of(ResultFlag.CONSTRUCTOR)).build());
            }
            return components;
        }

        private static String column(String component) {
            return component.replaceAll("([A-Z])", "_$1").toLowerCase(Locale.ROOT);
        }
    }
}
