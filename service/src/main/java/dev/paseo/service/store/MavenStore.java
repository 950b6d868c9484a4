package dev.paseo.service.store;

import dev.paseo.service.bytes.Digests;
import dev.paseo.core.trigger.BranchPattern;
import dev.paseo.language.file.Names;
import dev.paseo.service.arrival.Arrivals;
import dev.paseo.service.bytes.ByteStore;
import dev.paseo.service.evidence.Xml;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.io.ByteArrayInputStream;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** An artifact of a Maven repository, by its {@code maven-metadata.xml}. Snapshots, which change, are left alone. */
final class MavenStore implements WatchedStore {

    private static final Pattern SHA256 = Pattern.compile("[0-9a-f]{64}");
    private static final Pattern SHA1 = Pattern.compile("[0-9a-f]{40}");

    private final Where where;
    private final RegistryStore.Using using;

    MavenStore(Where where, RegistryStore.Using using) {
        this.where = where;
        this.using = using;
    }

    private URI at(String rest) {
        String base = where.address().endsWith("/") ? where.address() : where.address() + "/";
        return URI.create(
                base + where.group().orElseThrow().replace('.', '/') + "/" + where.name().orElseThrow() + "/" + rest);
    }

    private URI file(String number) {
        return at(number + "/" + where.name().orElseThrow() + "-" + number + "." + where.extension().orElse("jar"));
    }

    @Override
    public List<Sighting> list(boolean seenBefore) {
        URI address = at("maven-metadata.xml");
        Web.Text answer = using.web().text(address, Map.of());
        if (answer.absent() && !seenBefore) {
            return List.of();
        }
        byte[] metadata = answer.good(address).body();
        List<String> numbers = new ArrayList<>();
        Xml.texts(new ByteArrayInputStream(metadata), "version", numbers::add);
        BranchPattern wanted = new BranchPattern(where.pattern());
        return numbers.stream().distinct()
                .filter(number -> !number.toUpperCase(Locale.ROOT).endsWith("-SNAPSHOT") && wanted.matches(number)
                        && Arrivals.NUMBER.matcher(number).matches())
                .map(number -> new Sighting(number, checksum(number))).toList();
    }

    /** The checksum that the repository states: SHA-256 where it has one, else SHA-1. */
    private String checksum(String number) {
        for (String kind : List.of("sha256", "sha1")) {
            Web.Text answer = using.web().text(URI.create(file(number) + "." + kind), Map.of());
            String said = answer.status() == 200
                    ? new String(answer.body(), StandardCharsets.US_ASCII).strip().split("\\s")[0]
                            .toLowerCase(Locale.ROOT)
                    : "";
            if ((kind.equals("sha256") ? SHA256 : SHA1).matcher(said).matches()) {
                return kind + ":" + said;
            }
        }
        return "unstated";
    }

    @Override
    public List<Versions.Artifact> fetch(Sighting sighting) {
        URI address = file(sighting.number());
        ByteStore.StoredBytes kept = using.web().keep(address, Map.of(), Web.LARGEST);
        @Nullable
        String other = sighting.digest().startsWith("sha256:") && !sighting.digest().equals("sha256:" + kept.digest())
                ? "sha256:" + kept.digest()
                : sighting.digest().startsWith("sha1:") && !sighting.digest().equals("sha1:" + sha1(kept))
                        ? "sha1:" + sha1(kept) : null;
        if (other != null) {
            throw Refusal.unprocessable("Other bytes",
                    address + " answered with other bytes: stated " + sighting.digest() + ", got " + other);
        }
        String fileName = address.getPath().substring(address.getPath().lastIndexOf('/') + 1);
        return List.of(new Versions.Artifact(Names.artifact(fileName, sighting.number()), fileName, kept.digest(),
                kept.size()));
    }

    private String sha1(ByteStore.StoredBytes kept) {
        return Digests.of("SHA-1", using.bytes().open(kept.digest()));
    }
}
