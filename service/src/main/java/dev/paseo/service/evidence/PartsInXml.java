package dev.paseo.service.evidence;

import dev.paseo.core.text.Shortened;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.Iterator;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import javax.xml.stream.XMLStreamReader;

/** CycloneDX in XML, component by component. */
final class PartsInXml implements Xml.Handler {

    private static final String NAMESPACE = "http://cyclonedx.org/schema/bom/";
    /** No name is as long; texts of licences are. */
    private static final int LONGEST_TEXT = 4000;

    /** What else is told of a component is not kept. */
    private static final Set<String> KEPT = Set.of("group", "name", "version", "purl");

    /** What is told of a component so far. */
    private static final class Told {
        private final int depth;
        private final Map<String, String> words = new HashMap<>();
        private final PartsReport.Licences licences = new PartsReport.Licences();

        private Told(int depth) {
            this.depth = depth;
        }

        private String word(String name) {
            return words.getOrDefault(name, "");
        }
    }

    private final PartsReport report;
    private final Deque<Told> open = new ArrayDeque<>();
    private final StringBuilder text = new StringBuilder();

    PartsInXml(PartsReport report) {
        this.report = report;
    }

    @Override
    public boolean takesDoctype() {
        return false;
    }

    @Override
    public void opens(Deque<String> path, XMLStreamReader element) {
        text.setLength(0);
        if (path.size() == 1) {
            String namespace = Objects.requireNonNullElse(element.getNamespaceURI(), "");
            if (!path.getLast().equals("bom") || !namespace.startsWith(NAMESPACE)) {
                throw new UnreadableReport("is <" + Shortened.to(path.getLast(), 100)
                        + ">, not CycloneDX: <bom xmlns=\"" + NAMESPACE + "…\">");
            }
            PartsReport.requireKnown(namespace.substring(NAMESPACE.length()));
        } else if (isPart(path)) {
            open.addLast(new Told(path.size()));
            PartsReport.requireFlat(open.size());
        }
    }

    /** The component that is described itself, and what made the list, are no parts. */
    private static boolean isPart(Deque<String> path) {
        Iterator<String> from = path.iterator();
        return path.getLast().equals("component") && up(path, 1).equals("components") && from.next().equals("bom")
                && from.next().equals("components");
    }

    /** The name of the element so far above the one that is open; empty where there is none. */
    private static String up(Deque<String> path, int levels) {
        return path.reversed().stream().skip(levels).findFirst().orElse("");
    }

    @Override
    public void text(Deque<String> path, String more) {
        text.append(more, 0, Math.min(more.length(), LONGEST_TEXT - text.length()));
    }

    @Override
    public void closes(Deque<String> path) {
        if (open.isEmpty()) {
            return;
        }
        Told told = open.getLast();
        String name = path.getLast();
        int within = path.size() - told.depth;
        if (within == 0) {
            open.removeLast();
            report.add(told.word("group"), told.word("name"), told.word("version"), told.word("purl"),
                    told.licences.words());
        } else if (within == 1 && KEPT.contains(name)) {
            told.words.put(name, text.toString().strip());
        } else if (isLicence(path, name, within)) {
            told.licences.add(text.toString().strip());
        }
    }

    private static boolean isLicence(Deque<String> path, String name, int within) {
        return within == 2 && name.equals("expression") && up(path, 1).equals("licenses")
                || within == 3 && (name.equals("id") || name.equals("name")) && up(path, 1).equals("license")
                        && up(path, 2).equals("licenses");
    }
}
