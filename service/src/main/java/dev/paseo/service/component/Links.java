package dev.paseo.service.component;

import dev.paseo.service.problem.Refusal;
import java.net.URI;
import java.util.Map;
import java.util.Set;

/** Links kept with a component: repository, dashboards, runbook. */
final class Links {

    private static final int MOST = 20;

    private Links() {}

    /** Puts these in place of those that were there. */
    static void keep(ComponentMapper mapper, long component, Map<String, String> links) {
        if (links.size() > MOST) {
            throw Refusal.invalid("/links", "A component has at most " + MOST + " links");
        }
        mapper.dropLinks(component);
        int position = 0;
        for (Map.Entry<String, String> link : links.entrySet()) {
            check(link.getKey(), link.getValue());
            mapper.addLink(component, link.getKey(), link.getValue(), position++);
        }
    }

    private static void check(String title, String address) {
        if (title.isBlank() || title.length() > 60) {
            throw Refusal.invalid("/links", "A link's title has 1 to 60 characters, got “" + title + "”");
        }
        boolean good = address.length() <= 500;
        try {
            URI uri = URI.create(address);
            good &= uri.getScheme() != null && Set.of("http", "https", "mailto").contains(uri.getScheme());
        } catch (IllegalArgumentException wrong) {
            good = false;
        }
        if (!good) {
            throw Refusal.invalid("/links/" + title,
                    "should be an address that begins with http:, https: or mailto:, at most 500 characters");
        }
    }
}
