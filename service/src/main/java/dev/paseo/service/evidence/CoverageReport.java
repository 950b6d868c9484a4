package dev.paseo.service.evidence;

import dev.paseo.core.evidence.CoverageSummary;
import dev.paseo.core.evidence.CoverageSummary.Counted;
import dev.paseo.core.evidence.CoverageSummary.Group;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javax.xml.stream.XMLStreamReader;

/** Reads JaCoCo XML and Cobertura XML, any number of files, which add up. */
final class CoverageReport implements Xml.Handler {

    private static final int MOST_GROUPS = 1000;
    private static final Counted NONE = new Counted(0, 0);

    private final Map<String, Counted> groups = new LinkedHashMap<>();
    private Counted lines = NONE;
    private Optional<Counted> branches = Optional.empty();
    private String group = "";

    @Override
    public void opens(Deque<String> path, XMLStreamReader element) {
        String name = path.peekLast();
        if (path.size() == 1 && !name.equals("report") && !name.equals("coverage")) {
            throw new UnreadableReport("is <" + name + ">, neither JaCoCo XML (<report>) nor Cobertura XML (<coverage>)");
        }
        boolean cobertura = path.peekFirst().equals("coverage");
        switch (name) {
            case "package" -> group = Xml.cut(Xml.attribute(element, "name").orElse("").replace('/', '.'), 200);
            case "counter" -> counter(path, element);
            case "line" -> {
                // Of Cobertura the lines of a class count; those of its methods are the same ones again.
                if (cobertura && !path.contains("method")) {
                    line(element);
                }
            }
            default -> { }
        }
    }

    private void counter(Deque<String> path, XMLStreamReader element) {
        String[] open = path.toArray(String[]::new);
        if (open.length < 2 || !open[open.length - 2].equals("package")) {
            return;
        }
        long covered = (long) Xml.number(element, "covered");
        Counted counted = new Counted(covered, covered + (long) Xml.number(element, "missed"));
        switch (Xml.attribute(element, "type").orElse("")) {
            case "LINE" -> add(counted);
            case "BRANCH" -> branches = Optional.of(branches.orElse(NONE).plus(counted));
            default -> { }
        }
    }

    private void line(XMLStreamReader element) {
        add(new Counted(Xml.number(element, "hits") > 0 ? 1 : 0, 1));
        Xml.attribute(element, "condition-coverage").map(text -> text.replaceAll(".*\\(([0-9]+)/([0-9]+)\\).*", "$1/$2")).filter(text -> text.matches("[0-9]{1,9}/[0-9]{1,9}"))
                .ifPresent(text -> branches = Optional.of(branches.orElse(NONE).plus(
                        new Counted(Long.parseLong(text.split("/")[0]), Long.parseLong(text.split("/")[1])))));
    }

    private void add(Counted counted) {
        lines = lines.plus(counted);
        if (groups.size() < MOST_GROUPS || groups.containsKey(group)) {
            groups.merge(group, counted, Counted::plus);
        }
    }

    @Override
    public void text(Deque<String> path, String text) {
        // Coverage is in attributes.
    }

    @Override
    public void closes(Deque<String> path) {
        // Nothing is left open.
    }

    CoverageSummary summary() {
        List<Group> all = new ArrayList<>();
        groups.forEach((name, counted) -> all.add(new Group(name, counted)));
        return new CoverageSummary(lines, branches, all);
    }
}
