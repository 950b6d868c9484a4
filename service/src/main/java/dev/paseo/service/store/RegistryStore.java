package dev.paseo.service.store;

import dev.paseo.service.bytes.Digests;
import dev.paseo.core.trigger.BranchPattern;
import dev.paseo.language.file.Names;
import dev.paseo.service.bytes.ByteStore;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.change.Changes;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.io.ByteArrayInputStream;
import java.net.URI;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * A repository of a registry that speaks the OCI distribution protocol 1.1. Tags are listed; what they point to is
 * fetched by its digest. The manifest becomes the artifact {@code manifest}, whose digest is the image's; every layer
 * with a title ({@code org.opencontainers.image.title}) becomes an artifact named by it, without the version and what
 * follows.
 */
final class RegistryStore implements WatchedStore {

    private static final String MANIFESTS = "application/vnd.oci.image.manifest.v1+json, "
            + "application/vnd.oci.image.index.v1+json, "
            + "application/vnd.docker.distribution.manifest.v2+json, "
            + "application/vnd.docker.distribution.manifest.list.v2+json";
    private static final String TITLE = "org.opencontainers.image.title";
    private static final Pattern DIGEST = Pattern.compile("sha256:[0-9a-f]{64}");
    private static final Pattern NEXT = Pattern.compile("<([^>]+)>\\s*;\\s*rel=\"?next\"?");
    private static final Pattern CHALLENGE = Pattern.compile("(realm|service|scope)=\"([^\"]*)\"");
    private static final int MOST_PAGES = 100;
    private static final int MOST_TAGS = 1000;

    private final Where where;
    private final Optional<String> basic;
    private final Using using;

    /** What stores are read with. */
    record Using(Web web, KeptBytes bytes, Changes changes, JsonMapper json) {}

    /** @param login name and password, with a colon between */
    RegistryStore(Where where, Optional<String> login, Using using) {
        this.where = where;
        this.basic = login
                .map(words -> "Basic " + Base64.getEncoder().encodeToString(words.getBytes(StandardCharsets.UTF_8)));
        this.using = using;
    }

    private URI at(String rest) {
        String base = where.address().endsWith("/") ? where.address().substring(0, where.address().length() - 1)
                : where.address();
        return URI.create(base + "/v2/" + where.name().orElseThrow() + rest);
    }

    @Override
    public List<Sighting> list(boolean seenBefore) {
        BranchPattern wanted = new BranchPattern(where.pattern());
        Set<String> tags = new LinkedHashSet<>();
        Optional<URI> page = Optional.of(at("/tags/list?n=1000"));
        for (int pages = 0; page.isPresent() && pages < MOST_PAGES; pages++) {
            URI here = page.get();
            Web.Text said = get(here, "application/json");
            if (pages == 0 && said.absent() && !seenBefore) {
                return List.of();
            }
            Web.Text answer = said.good(here);
            json(answer, here).path("tags").forEach(tag -> {
                if (wanted.matches(tag.asString())) {
                    tags.add(tag.asString());
                }
            });
            // Each is asked for at every look.
            if (tags.size() > MOST_TAGS) {
                throw Refusal.unavailable(at("") + " has more than " + MOST_TAGS + " tags that “" + where.pattern()
                        + "” matches; name fewer by a narrower pattern");
            }
            page = answer.header("link").map(NEXT::matcher).filter(Matcher::find)
                    .map(next -> here.resolve(next.group(1)));
        }
        return tags.stream().map(tag -> new Sighting(tag, digest(tag))).toList();
    }

    private String digest(String tag) {
        URI address = at("/manifests/" + tag);
        Web.Text manifest = get(address, MANIFESTS).good(address);
        String said = manifest.header("docker-content-digest").orElseGet(() -> sha256(manifest.body()));
        if (!DIGEST.matcher(said).matches()) {
            throw Refusal.unavailable(address + " states the digest " + said + ", which is not a SHA-256");
        }
        return said;
    }

    @Override
    public List<Versions.Artifact> fetch(Sighting sighting) {
        URI address = at("/manifests/" + sighting.digest());
        byte[] manifest = get(address, MANIFESTS).good(address).body();
        refuseOther(address, sighting.digest(), sha256(manifest));
        List<Versions.Artifact> artifacts = new ArrayList<>();
        ByteStore.StoredBytes kept = using.bytes().keep(new ByteArrayInputStream(manifest), manifest.length,
                using.changes().now());
        artifacts.add(new Versions.Artifact("manifest", "manifest.json", kept.digest(), kept.size()));
        JsonNode read = using.json().readTree(new String(manifest, StandardCharsets.UTF_8));
        for (JsonNode layer : read.path("layers")) {
            String title = layer.path("annotations").path(TITLE).asString("");
            if (!title.isEmpty()) {
                artifacts.add(layer(layer, title, sighting.number()));
            }
        }
        return artifacts;
    }

    private Versions.Artifact layer(JsonNode layer, String title, String number) {
        String digest = layer.path("digest").asString("");
        String fileName = title.substring(title.lastIndexOf('/') + 1);
        if (!DIGEST.matcher(digest).matches() || fileName.isBlank() || fileName.startsWith(".")
                || fileName.length() > 255) {
            throw Refusal.unprocessable("The manifest cannot be used",
                    "A layer is titled “" + title + "” with the digest “" + digest + "”");
        }
        URI address = at("/blobs/" + digest);
        ByteStore.StoredBytes kept = using.web().keep(address, headers("*/*"), Web.LARGEST);
        refuseOther(address, digest, "sha256:" + kept.digest());
        return new Versions.Artifact(Names.artifact(fileName, number), fileName, kept.digest(), kept.size());
    }

    private static void refuseOther(URI address, String asked, String got) {
        if (!asked.equals(got)) {
            throw Refusal.unprocessable("Other bytes",
                    address + " answered with other bytes: asked for " + asked + ", got " + got);
        }
    }

    private Map<String, String> headers(String accept) {
        Map<String, String> headers = new LinkedHashMap<>(Map.of("Accept", accept));
        basic.ifPresent(login -> headers.put("Authorization", login));
        return headers;
    }

    /** Answers the registry's challenge for a token where it makes one. */
    private Web.Text get(URI address, String accept) {
        Web.Text answer = using.web().text(address, headers(accept));
        Optional<String> challenge = answer.header("www-authenticate")
                .filter(text -> text.toLowerCase(Locale.ROOT).startsWith("bearer "));
        if (answer.status() != 401 || challenge.isEmpty()) {
            return answer;
        }
        Map<String, String> asked = new LinkedHashMap<>();
        CHALLENGE.matcher(challenge.get()).results().forEach(part -> asked.put(part.group(1), part.group(2)));
        URI realm = URI.create(asked.getOrDefault("realm", "") + "?service=" + encode(asked.getOrDefault("service", ""))
                + "&scope=" + encode(asked.getOrDefault("scope", "")));
        JsonNode token = json(using.web().text(realm, headers("application/json")).good(realm), realm);
        return using.web().text(address, Map.of("Accept", accept, "Authorization",
                "Bearer " + token.path("token").asString(token.path("access_token").asString(""))));
    }

    private static String encode(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8);
    }

    private JsonNode json(Web.Text text, URI address) {
        try {
            return using.json().readTree(new String(text.body(), StandardCharsets.UTF_8));
        } catch (JacksonException notJson) {
            throw Refusal.unavailable(address + " does not answer with JSON: is it a registry?");
        }
    }

    private static String sha256(byte[] bytes) {
        return "sha256:" + Digests.of("SHA-256", new ByteArrayInputStream(bytes));
    }
}
