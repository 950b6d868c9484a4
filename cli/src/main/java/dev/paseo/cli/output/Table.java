package dev.paseo.cli.output;

import java.io.PrintWriter;
import java.util.ArrayList;
import java.util.List;

/** A table for people: columns as wide as they need to be, two spaces between them, nothing after the last. */
public final class Table {

    private final List<List<String>> rows = new ArrayList<>();

    public Table(String... headings) {
        rows.add(List.of(headings));
    }

    public void row(String... cells) {
        rows.add(List.of(cells));
    }

    /** A line across all columns, above the rows that belong together. */
    public void group(String title) {
        rows.add(List.of(title));
    }

    public void print(PrintWriter out, Ink ink) {
        int columns = rows.getFirst().size();
        int[] widths = new int[columns];
        rows.stream().filter(row -> row.size() == columns).forEach(row -> {
            for (int at = 0; at < columns; at++) {
                widths[at] = Math.max(widths[at], width(row.get(at)));
            }
        });
        boolean heading = true;
        for (List<String> row : rows) {
            if (row.size() != columns) {
                out.println();
                out.println(row.getFirst());
                continue;
            }
            StringBuilder line = new StringBuilder();
            for (int at = 0; at < columns; at++) {
                boolean last = at == columns - 1;
                line.append(row.get(at)).append(last ? "" : " ".repeat(widths[at] - width(row.get(at)) + 2));
            }
            out.println(heading ? ink.quiet(line.toString().stripTrailing()) : line.toString().stripTrailing());
            heading = false;
        }
    }

    /** Without the signs that only colour. */
    private static int width(String cell) {
        String plain = cell.replaceAll("\u001b\\[[0-9;]*m", "");
        return plain.codePointCount(0, plain.length());
    }
}
