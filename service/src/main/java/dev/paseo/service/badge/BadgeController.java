package dev.paseo.service.badge;

import dev.paseo.core.text.Sha256;
import dev.paseo.service.run.Runs;
import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.text.Shortened;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.component.Components;
import dev.paseo.service.secret.HookSecrets;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.settings.Settings;
import io.swagger.v3.oas.annotations.Hidden;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.time.Duration;
import java.util.Map;
import java.util.Optional;
import org.springframework.http.CacheControl;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/**
 * A branch's state as a small picture, for pages that cannot sign in: whoever has its address, which holds a key, may
 * see it.
 */
@RestController
class BadgeController {

    /** Shape as well as colour tells the state. */
    private static final Map<String, String[]> LOOKS = Map.of(
            "passed", new String[]{"#1f6b4f", "M7 11l3 3 6-7"}, "warned",
            new String[]{"#8a5a00", "M11.5 5v7M11.5 15v1"},
            "failed", new String[]{"#a3262c", "M7 6l9 9M16 6l-9 9"}, "cancelled", new String[]{"#5b6670", "M6 11h11"},
            "running", new String[]{"#1d5a8c", "M8 6l8 5-8 5z"}, "waiting", new String[]{"#5b6670", "M9 6v10M14 6v10"},
            "cancelling", new String[]{"#5b6670", "M6 11h11"}, "no run", new String[]{"#5b6670", "M11.5 10v2"});

    private final Components components;
    private final HookSecrets secrets;
    private final Runs runs;
    private final Settings settings;

    BadgeController(Components components, HookSecrets secrets, Runs runs, Settings settings) {
        this.components = components;
        this.secrets = secrets;
        this.runs = runs;
        this.settings = settings;
    }

    /** Where a branch's picture is. */
    record BadgeView(String address) {}

    /** The address of a branch's badge, which needs no sign-in; it holds a key. */
    @GetMapping("/api/v1/components/{name}/badge")
    BadgeView address(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestParam Optional<String> branch) {
        Permission.require(person, Action.LOOK, Optional.of(name), Optional.empty());
        RegisteredComponent component = components.named(name);
        return new BadgeView(settings.address() + "/badges/" + key(component) + "/" + name + ".svg?branch="
                + URLEncoder.encode(branch.orElse(component.mainBranch()), StandardCharsets.UTF_8));
    }

    private String key(RegisteredComponent component) {
        return Sha256.hex("badge\n" + secrets.of(component.id(), component.name())).substring(0, 24);
    }

    /** The badge: how the newest run of a branch went, as SVG. */
    @Hidden
    @GetMapping(value = "/badges/{key}/{name}.svg", produces = "image/svg+xml")
    ResponseEntity<String> badge(@PathVariable String key, @PathVariable String name,
            @RequestParam Optional<String> branch) {
        RegisteredComponent component = components.found(name).orElseThrow(BadgeController::none);
        if (!MessageDigest.isEqual(key(component).getBytes(StandardCharsets.US_ASCII),
                key.getBytes(StandardCharsets.UTF_8))) {
            throw none();
        }
        String shown = branch.orElse(component.mainBranch());
        String state = runs.newestStatus(component.id(), shown).orElse("no run");
        return ResponseEntity.ok().cacheControl(CacheControl.maxAge(Duration.ofSeconds(10)))
                .body(svg(name + " " + shown, state));
    }

    /** Said alike where there is no such component. */
    private static Refusal none() {
        return Refusal.notFound("There is no such picture");
    }

    private static String svg(String title, String state) {
        String text = escape(Shortened.to(title, 60));
        int left = 12 + Math.min(61, title.length()) * 7;
        int width = left + 36 + state.length() * 7;
        String[] look = LOOKS.get(state);
        return """
                <svg xmlns="http://www.w3.org/2000/svg" width="%1$d" height="22" role="img" aria-label="%2$s: \
                %3$s"><title>%2$s: %3$s</title>
                <rect width="%1$d" height="22" rx="4" fill="#f3efe6"/><rect x="%4$d" width="%5$d" height="22" rx="4" \
                fill="%6$s"/>
                <path transform="translate(%4$d 0)" d="%7$s" fill="none" stroke="#fff" stroke-width="2" \
                stroke-linecap="round"/>
                <g font-family="monospace" font-size="11.5"><text x="6" y="15" fill="#24313a">%2$s</text><text \
                x="%8$d" y="15" fill="#fff">%3$s</text></g></svg>
                """.formatted(width, text, state, left, width - left, look[0], look[1], left + 24);
    }

    private static String escape(String text) {
        return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;").replace("\"", "&quot;");
    }
}
