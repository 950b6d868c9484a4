import java.io.IOException;
import java.io.UncheckedIOException;
import java.lang.classfile.ClassFile;
import java.lang.classfile.ClassTransform;
import java.lang.classfile.instruction.LineNumber;
import java.lang.constant.ClassDesc;
import java.lang.constant.MethodTypeDesc;
import java.lang.instrument.ClassFileTransformer;
import java.lang.instrument.Instrumentation;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.ProtectionDomain;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentSkipListMap;

/** Counts which lines of the park's classes run, and writes Cobertura XML at the end. */
public final class Coverage {

    private static final Map<String, Map<Integer, Long>> HITS = new ConcurrentSkipListMap<>();
    private static final MethodTypeDesc HIT = MethodTypeDesc.ofDescriptor("(Ljava/lang/String;I)V");

    private Coverage() {}

    public static void premain(String file, Instrumentation instrumentation) {
        instrumentation.addTransformer(new ClassFileTransformer() {
            @Override
            public byte[] transform(ClassLoader loader, String name, Class<?> old, ProtectionDomain domain, byte[] bytes) {
                return name.startsWith("park/daylight/") && !name.contains("Tests") ? counted(name, bytes) : null;
            }
        });
        Runtime.getRuntime().addShutdownHook(new Thread(() -> write(Path.of(file))));
    }

    private static byte[] counted(String name, byte[] bytes) {
        ClassFile files = ClassFile.of();
        Map<Integer, Long> lines = HITS.computeIfAbsent(name, key -> new ConcurrentSkipListMap<>());
        return files.transformClass(files.parse(bytes), ClassTransform.transformingMethodBodies((code, element) -> {
            code.with(element);
            if (element instanceof LineNumber line) {
                lines.putIfAbsent(line.line(), 0L);
                code.loadConstant(name).loadConstant(line.line()).invokestatic(ClassDesc.of("Coverage"), "hit", HIT);
            }
        }));
    }

    /** Called by what is counted. */
    public static void hit(String name, int line) {
        HITS.computeIfAbsent(name, key -> new ConcurrentHashMap<>()).merge(line, 1L, Long::sum);
    }

    private static void write(Path file) {
        StringBuilder xml = new StringBuilder("<coverage><packages><package name=\"park.daylight\"><classes>\n");
        HITS.forEach((name, lines) -> {
            xml.append("<class name=\"").append(name.replace('/', '.')).append("\"><lines>\n");
            lines.forEach((line, hits) -> xml.append("<line number=\"").append(line).append("\" hits=\"").append(hits).append("\"/>\n"));
            xml.append("</lines></class>\n");
        });
        try {
            Files.writeString(file, xml + "</classes></package></packages></coverage>\n");
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }
}
