package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import java.util.List;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(name = "parts", description = {
        "What a version is made of, or which versions have a part and where they are live, as reports of parts "
                + "(CycloneDX) say.",
        "A part is a package URL, with a version or without, or the last word of a name. Exits 1 where nothing is."},
        footer = {"", "Examples:", "  paseo parts daylight-api 1.4.6", "  paseo parts horizon --live",
                "  paseo parts pkg:maven/org.example/horizon@3.1"})
final class PartsCommand extends ServiceCommand {

    @Parameters(arity = "1..2", paramLabel = "COMPONENT VERSION | PART", hideParamSyntax = true)
    private List<String> of = List.of();

    @Option(names = "--live", description = "of a part: only versions that are live somewhere")
    private boolean live;

    PartsCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        if (of.size() == 2) {
            JsonNode view = api().get(Api.path("versions", of.getFirst(), of.get(1), "parts"));
            print(view, () -> parts(view));
            return view.path("parts").isEmpty() ? 1 : 0;
        }
        JsonNode found = api().get(Api.path("packages") + "?name=" + Api.encode(of.getFirst())
                + (live ? "&live=true" : ""));
        print(found, () -> versions(found));
        return found.path("versions").isEmpty() ? 1 : 0;
    }

    private void parts(JsonNode view) {
        if (view.path("parts").isEmpty()) {
            context.out().println("No report of parts is there: a stage reports them with reports: {parts: FILE}.");
            return;
        }
        Table table = new Table("PART", "VERSION", "LICENCE");
        view.path("parts").forEach(part -> table.row(part.path("name").asString(),
                part.path("version").asString(""), part.path("licence").asString("–")));
        table.print(context.out(), context.ink());
    }

    private void versions(JsonNode found) {
        if (found.path("versions").isEmpty()) {
            context.out().println("No " + (live ? "live " : "") + "version has “" + of.getFirst()
                    + "”, as far as reports of parts say.");
            return;
        }
        Table table = new Table("VERSION", "LIVE IN", "SEALED", "AS");
        found.path("versions").forEach(each -> table.row(
                context.ink().strong(each.path("component").asString()) + " " + each.path("version").asString(),
                each.path("live").valueStream().map(place -> place.path("environment").asString())
                        .collect(Collectors.joining(", ")),
                Times.exact(each.path("sealedAt")),
                each.path("parts").valueStream().map(part -> part.path("name").asString()
                        + (part.has("version") ? "@" + part.path("version").asString() : ""))
                        .collect(Collectors.joining(", "))));
        table.print(context.out(), context.ink());
        if (!found.path("all").asBoolean()) {
            context.out().println("and older ones");
        }
    }
}
