package dev.paseo.cli;

import dev.paseo.cli.output.Ink;
import dev.paseo.cli.output.Plain;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.ClientSettings;
import java.io.InputStream;
import java.io.PrintWriter;
import java.util.Map;
import java.util.Optional;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What every command works with: its streams, the environment, and the service. */
public final class Context {

    private final PrintWriter out;
    private final InputStream in;
    private final Map<String, String> environment;
    private final Ink ink;
    private final JsonMapper json = JsonMapper.builder().build();

    public Context(PrintWriter out, InputStream in, Map<String, String> environment, boolean terminal) {
        this.out = Plain.writer(out);
        this.in = in;
        this.environment = environment;
        this.ink = new Ink(terminal && environment.getOrDefault("NO_COLOR", "").isEmpty());
    }

    public PrintWriter out() {
        return out;
    }

    public InputStream in() {
        return in;
    }

    public String environment(String name) {
        return environment.getOrDefault(name, "");
    }

    public Ink ink() {
        return ink;
    }

    public JsonMapper json() {
        return json;
    }

    public ClientSettings settings() {
        return new ClientSettings(environment, json);
    }

    public Api api(Optional<String> service) {
        return new Api(settings().target(service), json);
    }

    public void printJson(JsonNode node) {
        out.println(json.writerWithDefaultPrettyPrinter().writeValueAsString(node));
    }
}
