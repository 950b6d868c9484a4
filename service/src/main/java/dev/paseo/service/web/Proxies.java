package dev.paseo.service.web;

import dev.paseo.service.settings.Settings;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.apache.catalina.valves.RemoteIpValve;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.stereotype.Component;

/**
 * Who asks, and whether by https, is taken from forwarded headers where they come from a proxy that is named, and from
 * nobody else.
 */
@Component
class Proxies implements WebServerFactoryCustomizer<TomcatServletWebServerFactory> {

    private final Settings settings;

    Proxies(Settings settings) {
        this.settings = settings;
    }

    @Override
    public void customize(TomcatServletWebServerFactory factory) {
        if (settings.proxies().isEmpty()) {
            return;
        }
        RemoteIpValve valve = new RemoteIpValve();
        valve.setInternalProxies(
                settings.proxies().stream().map(String::strip).map(Pattern::quote).collect(Collectors.joining("|")));
        valve.setRemoteIpHeader("X-Forwarded-For");
        valve.setProtocolHeader("X-Forwarded-Proto");
        factory.addEngineValves(valve);
    }
}
