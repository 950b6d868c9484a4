package dev.paseo.service.database;

import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.jdbc.autoconfigure.DataSourceProperties;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** Makes the pool of connections; its settings are {@code spring.datasource.hikari}'s. */
@Configuration(proxyBeanMethods = false)
class Pool {

    @Bean
    @ConfigurationProperties("spring.datasource.hikari")
    PatientPool dataSource(DataSourceProperties properties) {
        return properties.initializeDataSourceBuilder().type(PatientPool.class).build();
    }
}
