package dev.paseo.service.origin;

import dev.paseo.service.engine.EffectHandler;
import dev.paseo.service.version.Versions;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** States and signs what was sealed and what went live, as soon as it was. */
final class Stating {

    private static final Logger LOG = LoggerFactory.getLogger(Stating.class);

    private Stating() {}

    /** How a version came about. */
    @Component("statingVersions")
    record OfVersions(Statements statements) implements EffectHandler {
        @Override
        public String kind() {
            return Versions.STATED;
        }

        @Override
        public void perform(String body) {
            statements.ofVersion(Long.parseLong(body));
        }

        @Override
        public void gaveUp(String body, String error) {
            LOG.error("how version {} came about was not stated; it is when it is asked for: {}", body, error);
        }
    }

    /** That a deployment went live. */
    @Component("statingDeployments")
    record OfDeployments(Statements statements) implements EffectHandler {
        @Override
        public String kind() {
            return Versions.STATED_LIVE;
        }

        @Override
        public void perform(String body) {
            statements.ofDeployment(Long.parseLong(body));
        }

        @Override
        public void gaveUp(String body, String error) {
            LOG.error("that deployment {} went live was not stated; it is when it is asked for: {}", body, error);
        }
    }
}
