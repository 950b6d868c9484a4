package dev.paseo.service;

import com.sun.source.tree.CompilationUnitTree;
import com.sun.source.tree.LineMap;
import com.sun.source.tree.MethodTree;
import com.sun.source.util.JavacTask;
import com.sun.source.util.SourcePositions;
import com.sun.source.util.TreePathScanner;
import com.sun.source.util.Trees;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import javax.tools.JavaCompiler;
import javax.tools.StandardJavaFileManager;
import javax.tools.ToolProvider;

/** How many lines methods have, from the name to the last brace, as the compiler reads them. */
final class MethodLengths {

    private MethodLengths() {}

    /** Those with more lines than these: the file, the method and its lines. */
    static List<String> longer(List<Path> sources, int most) throws IOException {
        JavaCompiler compiler = ToolProvider.getSystemJavaCompiler();
        List<String> longer = new ArrayList<>();
        try (StandardJavaFileManager files = compiler.getStandardFileManager(null, null, null)) {
            JavacTask task = (JavacTask) compiler.getTask(null, files, null, List.of("-proc:none"), null,
                    files.getJavaFileObjectsFromPaths(sources));
            SourcePositions positions = Trees.instance(task).getSourcePositions();
            for (CompilationUnitTree unit : task.parse()) {
                LineMap lines = unit.getLineMap();
                new TreePathScanner<Void, Void>() {
                    @Override
                    public Void visitMethod(MethodTree method, Void nothing) {
                        if (method.getBody() != null) {
                            long first = lines.getLineNumber(method.getReturnType() == null
                                    ? positions.getStartPosition(unit, method)
                                    : positions.getStartPosition(unit, method.getReturnType()));
                            long count = lines.getLineNumber(positions.getEndPosition(unit, method)) - first + 1;
                            if (count > most) {
                                longer.add(unit.getSourceFile().getName() + " " + method.getName() + " " + count);
                            }
                        }
                        return super.visitMethod(method, nothing);
                    }
                }.scan(unit, null);
            }
        }
        return longer;
    }
}
