package dev.paseo.service.announcement;

import com.github.packageurl.MalformedPackageURLException;
import com.github.packageurl.PackageURL;
import dev.paseo.core.text.Sha256;
import dev.paseo.service.audit.TrailExport;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Json;
import dev.paseo.service.engine.Nudge;
import dev.paseo.service.settings.Settings;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;

/**
 * Writes down, in the transaction in which something happens, what is told to whom. The events are CloudEvents 1.0;
 * their data are of CDEvents 0.4.
 */
@Component
public class Announcements {

    /** The kinds that are told, by the type of their event without its version. */
    static final List<String> KINDS = List.of("pipelinerun.started", "pipelinerun.finished", "artifact.packaged",
            "artifact.published",
            "service.deployed", "service.upgraded", "audit.head");

    /** A head of the trail: of no component, so it is told only to those that name it. */
    private static final String HEAD = "audit.head";

    static final TypeReference<List<String>> WORDS = new TypeReference<>() {};
    private static final String CDEVENTS = "0.4.1";
    private static final String TYPE_VERSION = "0.2.0";

    private final AnnouncementMapper mapper;
    private final Json json;
    private final ServiceClock clock;
    private final Nudge nudge;
    private final Settings settings;

    Announcements(AnnouncementMapper mapper, Json json, ServiceClock clock, Nudge nudge, Settings settings) {
        this.mapper = mapper;
        this.json = json;
        this.clock = clock;
        this.nudge = nudge;
        this.settings = settings;
    }

    /** A run has begun. */
    public void runStarted(String component, long number) {
        tell("pipelinerun.started", component, run(component, number), "pipelineRun", number + " began",
                Map.of("pipelineName", component, "uri", page(component, number)));
    }

    /** @param revision of the run's state, since a run that is resumed ends again */
    public void runFinished(String component, long number, long revision, String status, Optional<String> reason) {
        Map<String, Object> content = new LinkedHashMap<>(
                Map.of("pipelineName", component, "uri", page(component, number), "outcome", switch (status) {
                    case "passed", "warned" -> "success";
                    case "cancelled" -> "cancel";
                    default -> "failure";
                }));
        reason.ifPresent(why -> content.put("errors", why));
        tell("pipelinerun.finished", component, run(component, number), "pipelineRun", number + " ended at " + revision,
                content);
    }

    /** A version is sealed, by a run of ours or elsewhere. */
    public void sealed(String component, String version, String digest, Optional<String> commit) {
        String kind = commit.isPresent() ? "artifact.packaged" : "artifact.published";
        tell(kind, component, purl(component, version, digest), "artifact", version,
                commit.map(id -> Map.<String, Object>of("change", Map.of("id", id, "source", source(component))))
                        .orElse(Map.of()));
    }

    /** A version is live in a place, where another was live before or not. */
    public void live(String component, String environment, long deployment, String version, String digest,
            boolean upgraded) {
        tell(upgraded ? "service.upgraded" : "service.deployed", component, component, "service",
                "deployment " + deployment,
                Map.of("environment", Map.of("id", environment, "source", settings.address()), "artifactId",
                        purl(component, version, digest)));
    }

    /** A head of the trail is signed, and told so that somebody else keeps it. */
    public void headSigned(TrailExport.HeadView head) {
        send(ofHeads(), id(HEAD + " " + head.size()), "dev.paseo." + HEAD + ".1.0.0", settings.address(), "audit trail",
                clock.now(), head);
    }

    private List<AnnouncementMapper.ReceiverRow> ofHeads() {
        return mapper.active().stream().filter(row -> json.read(row.kinds(), WORDS).contains(HEAD)).toList();
    }

    /** The names of the receivers that are told of heads. */
    public List<String> receiversOfHeads() {
        return ofHeads().stream().map(AnnouncementMapper.ReceiverRow::name).toList();
    }

    private static String id(String key) {
        return "pas_" + Sha256.hex(key).substring(0, 32);
    }

    private void tell(String kind, String component, String subject, String subjectType, String key,
            Map<String, Object> content) {
        List<AnnouncementMapper.ReceiverRow> receivers = mapper.active().stream()
                .filter(row -> wants(row.kinds(), kind) && wants(row.components(), component)).toList();
        if (receivers.isEmpty()) {
            return;
        }
        Instant now = clock.now();
        String id = id(kind + " " + component + " " + key);
        String type = "dev.cdevents." + kind + "." + TYPE_VERSION;
        Map<String, Object> data = new LinkedHashMap<>();
        data.put("context", Map.of("version", CDEVENTS, "id", id, "source", source(component), "type", type,
                "timestamp", now.toString()));
        data.put("subject",
                Map.of("id", subject, "source", source(component), "type", subjectType, "content", content));
        send(receivers, id, type, source(component), subject, now, data);
    }

    private void send(List<AnnouncementMapper.ReceiverRow> receivers, String id, String type, String source,
            String subject, Instant now, Object data) {
        Map<String, Object> event = new LinkedHashMap<>();
        event.put("specversion", "1.0");
        event.put("id", id);
        event.put("source", source);
        event.put("type", type);
        event.put("subject", subject);
        event.put("time", now.toString());
        event.put("datacontenttype", "application/json");
        event.put("data", data);
        String body = json.write(event);
        receivers.forEach(row -> mapper.post(row.id(), id, type, body, now));
        nudge.afterCommit(Outgoing.CHANNEL);
    }

    private boolean wants(String words, String word) {
        List<String> wanted = json.read(words, WORDS);
        return wanted.isEmpty() || wanted.contains(word);
    }

    private String source(String component) {
        return settings.address() + "/components/" + component;
    }

    private String page(String component, long number) {
        return settings.address() + "/runs/" + component + "/" + number;
    }

    private static String run(String component, long number) {
        return component + "#" + number;
    }

    /** The package URL of a version, with the digest of everything in it. */
    static String purl(String component, String version, String digest) {
        try {
            return new PackageURL("generic", null, component, version,
                    new TreeMap<>(Map.of("checksum", "sha256:" + digest)), null).canonicalize();
        } catch (MalformedPackageURLException impossible) {
            throw new IllegalStateException(impossible);
        }
    }
}
