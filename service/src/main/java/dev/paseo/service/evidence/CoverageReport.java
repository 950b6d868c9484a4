package dev.paseo.service.evidence;

import dev.paseo.core.evidence.CoverageSummary.Counted;
import dev.paseo.core.evidence.CoverageSummary.Group;
import dev.paseo.core.evidence.CoverageSummary;
import dev.paseo.core.text.Shortened;
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
    /** What the file that is read now says of itself as a whole; it counts where nothing below it does. */
    private Counted stated = NONE;
    private Optional<Counted> statedBranches = Optional.empty();
    private boolean counted = true;

    @Override
    public void opens(Deque<String> path, XMLStreamReader element) {
        String name = path.peekLast();
        if (path.size() == 1 && !name.equals("report") && !name.equals("coverage")) {
            throw new UnreadableReport(
                    "is <" + name + ">, neither JaCoCo XML (<report>) nor Cobertura XML (<coverage>)");
        }
        boolean cobertura = path.peekFirst().equals("coverage");
        if (path.size() == 1) {
            begin(element);
        }
        switch (name) {
            case "package" -> group = Shortened.to(Xml.attribute(element, "name").orElse("").replace('/', '.'), 200);
            case "counter" -> counter(path, element);
            case "line" -> {
                // Of Cobertura the lines of a class count; those of its methods are the same ones again.
                if (cobertura && !path.contains("method")) {
                    line(element);
                }
            }
            default -> {}
        }
    }

    private void counter(Deque<String> path, XMLStreamReader element) {
        String[] open = path.toArray(String[]::new);
        boolean whole = open.length == 2 && open[0].equals("report");
        if (!whole && (open.length < 2 || !open[open.length - 2].equals("package"))) {
            return;
        }
        long covered = (long) Xml.number(element, "covered");
        Counted found = new Counted(covered, covered + (long) Xml.number(element, "missed"));
        switch (Xml.attribute(element, "type").orElse("") + (whole ? " of all" : "")) {
            case "LINE of all" -> stated = found;
            case "BRANCH of all" -> statedBranches = Optional.of(found);
            case "LINE" -> add(found);
            case "BRANCH" -> branch(found);
            default -> {}
        }
    }

    private void line(XMLStreamReader element) {
        add(new Counted(Xml.number(element, "hits") > 0 ? 1 : 0, 1));
        Xml.attribute(element, "condition-coverage")
                .map(text -> text.replaceAll(".*\\(([0-9]+)/([0-9]+)\\).*", "$1/$2"))
                .filter(text -> text.matches("[0-9]{1,9}/[0-9]{1,9}"))
                .ifPresent(text -> branch(
                        new Counted(Long.parseLong(text.split("/")[0]), Long.parseLong(text.split("/")[1]))));
    }

    /** Another file begins: of the one before, what it stated counts where it counted nothing itself. */
    private void begin(XMLStreamReader element) {
        end();
        counted = false;
        stated = total(element, "lines").orElse(NONE);
        statedBranches = total(element, "branches");
    }

    private static Optional<Counted> total(XMLStreamReader element, String what) {
        return Xml.attribute(element, what + "-valid").filter(text -> text.matches("[0-9]{1,15}")).map(Long::parseLong)
                .filter(valid -> valid > 0)
                .flatMap(valid -> Xml.attribute(element, what + "-covered").filter(text -> text.matches("[0-9]{1,15}"))
                        .map(Long::parseLong)
                        .filter(covered -> covered <= valid).map(covered -> new Counted(covered, valid)));
    }

    private void end() {
        if (!counted) {
            lines = lines.plus(stated);
            statedBranches.ifPresent(this::branch);
        }
        counted = true;
    }

    private void branch(Counted found) {
        branches = Optional.of(branches.orElse(NONE).plus(found));
    }

    private void add(Counted found) {
        counted = true;
        lines = lines.plus(found);
        if (groups.size() < MOST_GROUPS || groups.containsKey(group)) {
            groups.merge(group, found, Counted::plus);
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
        end();
        List<Group> all = new ArrayList<>();
        groups.forEach((name, counted) -> all.add(new Group(name, counted)));
        return new CoverageSummary(lines, branches, all);
    }
}
