package dev.paseo.language.piece;

import com.github.difflib.DiffUtils;
import com.github.difflib.UnifiedDiffUtils;
import java.util.List;

/** What differs between two texts of a pipeline file. */
public final class Difference {

    private static final int CONTEXT = 2;

    private Difference() {}

    /** The lines of a unified diff, without its head; none where the texts are the same. */
    public static List<String> of(String before, String after) {
        List<String> old = before.lines().toList();
        List<String> lines = UnifiedDiffUtils.generateUnifiedDiff("now", "then", old,
                DiffUtils.diff(old, after.lines().toList()), CONTEXT);
        return lines.stream().skip(2).toList();
    }
}
