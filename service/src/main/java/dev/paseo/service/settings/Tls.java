package dev.paseo.service.settings;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import org.springframework.boot.EnvironmentPostProcessor;
import org.springframework.boot.SpringApplication;
import org.springframework.core.env.ConfigurableEnvironment;
import org.springframework.core.env.MapPropertySource;

/**
 * Serves by https where {@code paseo.tls.certificate} and {@code paseo.tls.key} name PEM files; they are read again
 * when they change.
 */
public final class Tls implements EnvironmentPostProcessor {

    private static final String BUNDLE = "spring.ssl.bundle.pem.paseo.";

    @Override
    public void postProcessEnvironment(ConfigurableEnvironment environment, SpringApplication application) {
        String certificate = environment.getProperty("paseo.tls.certificate", "");
        String key = environment.getProperty("paseo.tls.key", "");
        if (certificate.isBlank() && key.isBlank()) {
            return;
        }
        if (certificate.isBlank() || key.isBlank()) {
            throw new IllegalStateException("paseo.tls.certificate and paseo.tls.key are set together, or neither");
        }
        Map<String, Object> properties = new LinkedHashMap<>();
        properties.put(BUNDLE + "keystore.certificate", Path.of(certificate).toUri().toString());
        properties.put(BUNDLE + "keystore.private-key", Path.of(key).toUri().toString());
        properties.put(BUNDLE + "reload-on-update", true);
        properties.put("spring.ssl.bundle.watch.file.quiet-period", "2s");
        properties.put("server.ssl.bundle", "paseo");
        environment.getPropertySources().addLast(new MapPropertySource("paseo-tls", properties));
    }
}
