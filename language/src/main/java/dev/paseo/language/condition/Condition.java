package dev.paseo.language.condition;

import dev.cel.common.CelAbstractSyntaxTree;
import dev.cel.common.CelIssue;
import dev.cel.common.CelOptions;
import dev.cel.common.CelValidationException;
import dev.cel.common.ast.CelExpr.ExprKind.Kind;
import dev.cel.common.ast.CelExpr;
import dev.cel.common.navigation.CelNavigableAst;
import dev.cel.common.navigation.CelNavigableExpr;
import dev.cel.common.types.CelType;
import dev.cel.common.types.ListType;
import dev.cel.common.types.SimpleType;
import dev.cel.compiler.CelCompiler;
import dev.cel.compiler.CelCompilerBuilder;
import dev.cel.compiler.CelCompilerFactory;
import dev.cel.parser.CelStandardMacro;
import dev.cel.runtime.CelEvaluationException;
import dev.cel.runtime.CelRuntime;
import dev.cel.runtime.CelRuntimeFactory;
import dev.paseo.language.NearestName;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * Conditions in the Common Expression Language (CEL), over a set of facts whose names and types are known, so that a
 * condition is checked when its file is.
 */
public final class Condition {

    private static final int MOST_SIGNS = 2000;
    private static final int MOST_PROGRAMS = 200;
    private static final CelOptions OPTIONS = CelOptions.current().enableHeterogeneousNumericComparisons(true)
            .comprehensionMaxIterations(1000).build();
    private static final CelRuntime RUNTIME = CelRuntimeFactory.standardCelRuntimeBuilder().setOptions(OPTIONS).build();
    private static final Map<String, CelType> TESTS = fields(SimpleType.INT, "total", "passed", "failed", "skipped");
    private static final Map<String, CelType> COVERAGE = fields(SimpleType.DOUBLE, "lines", "branches");
    private static final Map<String, CelType> FINDINGS = fields(SimpleType.INT, "total", "errors", "warnings", "notes");
    private static final Map<String, CelType> PARTS = Map.of("total", SimpleType.INT, "unlicensed", SimpleType.INT,
            "packages", ListType.create(SimpleType.STRING));
    private static final Map<String, CelType> ADDED = Map.of("names", ListType.create(SimpleType.STRING), "kinds",
            ListType.create(SimpleType.STRING));
    private static final Pattern NAMES = Pattern
            .compile("(?<![\\w.])[a-z_][a-z0-9_]*(?:\\.[a-z_][a-z0-9_]*)*(?![\\w(])");
    private static final Pattern MISTYPED = Pattern.compile("expected type '([^']*)' but found '([^']*)'.*",
            Pattern.DOTALL);
    private static final Map<String, String> KINDS = Map.of("bool", "true or false", "int", "a number", "double",
            "a number", "string", "a text");
    /** What the grammar says of a word that does not belong there. */
    private static final Pattern UNEXPECTED = Pattern.compile(
            "(?:mismatched input|extraneous input|token recognition error at:|no viable alternative at input)"
                    + " '(.*?)'.*",
            Pattern.DOTALL);
    private static final Pattern UNDECLARED = Pattern.compile("undeclared reference to '([^']*)'.*", Pattern.DOTALL);
    private static final Pattern UNDEFINED = Pattern.compile("undefined field '([^']*)'.*", Pattern.DOTALL);

    private static final Condition OVER_REPORTS = new Condition(Map.of(), Map.of(
            "tests", withSeconds(TESTS), "coverage", COVERAGE, "findings", FINDINGS, "parts", PARTS));

    private final Map<String, CelType> plain;
    private final Map<String, Map<String, CelType>> groups;
    private final CelCompiler compiler;
    private final Map<String, CelRuntime.Program> programs = new ConcurrentHashMap<>();

    private Condition(Map<String, CelType> plain, Map<String, Map<String, CelType>> groups) {
        this.plain = plain;
        this.groups = groups;
        GroupTypes types = new GroupTypes(groups);
        CelCompilerBuilder builder = CelCompilerFactory.standardCelCompilerBuilder().setOptions(OPTIONS)
                .setStandardMacros(CelStandardMacro.STANDARD_MACROS).setTypeProvider(types)
                .setResultType(SimpleType.BOOL);
        plain.forEach(builder::addVar);
        groups.keySet().forEach(group -> builder.addVar(group, types.of(group)));
        this.compiler = builder.build();
    }

    private static Map<String, CelType> fields(CelType type, String... names) {
        return List.of(names).stream()
                .collect(Collectors.toMap(name -> name, name -> type, (left, right) -> left, TreeMap::new));
    }

    private static Map<String, CelType> withSeconds(Map<String, CelType> tests) {
        Map<String, CelType> more = new TreeMap<>(tests);
        more.put("seconds", SimpleType.DOUBLE);
        return more;
    }

    /**
     * Over the facts of a run: {@code component branch commit version cause} (texts), {@code trusted}, and the answers
     * as {@code asks.NAME} and the values of the variant as {@code each.NAME}, all texts, with _ for - in names.
     */
    public static Condition overRuns(Collection<String> asks, Collection<String> each) {
        Map<String, CelType> plain = new TreeMap<>(
                fields(SimpleType.STRING, "component", "branch", "commit", "version", "cause"));
        plain.put("trusted", SimpleType.BOOL);
        return new Condition(plain, Map.of("asks", named(asks), "each", named(each)));
    }

    private static Map<String, CelType> named(Collection<String> names) {
        return fields(SimpleType.STRING, names.stream().map(Condition::identifier).toArray(String[]::new));
    }

    /** A name as conditions write it. */
    public static String identifier(String name) {
        return name.replace('-', '_');
    }

    /**
     * Over reports: {@code tests.total passed failed skipped} (counts), {@code tests.seconds}, {@code coverage.lines
     * branches} (shares from 0 to 1), {@code findings.total errors warnings notes} (counts), {@code
     * parts.total unlicensed} (counts), {@code parts.packages} (texts: package URLs, without version and with it).
     */
    public static Condition overReports() {
        return OVER_REPORTS;
    }

    /**
     * Over the facts of a gate: {@code component version branch commit live} (texts; live: the version that is live
     * there, or ""), {@code trusted}, the reports as in {@link #overReports}, what was added after sealing as {@code
     * added.names kinds} (texts: who signed off, and kinds: sign-off, signature, statement), and those of an
     * environment as {@code at.ENVIRONMENT.tests.failed} and so on, with _ for - in names.
     */
    public static Condition overGates(Collection<String> environments) {
        Map<String, CelType> plain = new TreeMap<>(
                fields(SimpleType.STRING, "component", "version", "branch", "commit", "live"));
        plain.put("trusted", SimpleType.BOOL);
        Map<String, Map<String, CelType>> groups = new TreeMap<>(
                Map.of("tests", withSeconds(TESTS), "coverage", COVERAGE, "findings", FINDINGS, "parts", PARTS,
                        "added", ADDED));
        Map<String, CelType> reports = new TreeMap<>();
        groups.keySet().forEach(group -> reports.put(group, GroupTypes.named(group)));
        groups.put("reports", reports);
        groups.put("at", environments.stream().collect(Collectors.toMap(Condition::identifier,
                name -> GroupTypes.named("reports"), (one, other) -> one, TreeMap::new)));
        return new Condition(plain, groups);
    }

    /** Over the facts of a gate, with those environments that these conditions name, whether they are there or not. */
    public static Condition overGatesOf(Collection<String> conditions) {
        return overGates(conditions.stream().flatMap(Condition::environments).collect(Collectors.toSet()));
    }

    private static Stream<String> environments(String condition) {
        try {
            return CelNavigableAst.fromAst(OVER_REPORTS.compiler.parse(condition).getAst()).getRoot().allNodes()
                    .map(CelNavigableExpr::expr).filter(expr -> expr.getKind() == Kind.SELECT).map(CelExpr::select)
                    .filter(select -> select.operand().getKind() == Kind.IDENT
                            && select.operand().ident().name().equals("at"))
                    .map(CelExpr.CelSelect::field);
        } catch (CelValidationException invalid) {
            return Stream.of();
        }
    }

    /**
     * The facts that a condition names, with what they are: {@code tests.failed is 0, coverage.lines was never
     * reported}.
     */
    public static String seen(String text, Map<String, ?> facts) {
        List<String> words = new ArrayList<>();
        Matcher names = NAMES.matcher(text.replaceAll("'[^']*'|\"[^\"]*\"", ""));
        while (names.find()) {
            String name = names.group();
            Object found = facts;
            for (String part : name.split("\\.")) {
                found = found instanceof Map<?, ?> map ? map.get(part) : null;
            }
            boolean known = facts.containsKey(name.split("\\.")[0]) || name.contains(".");
            String said = name + (found == null ? " was never reported" : " is " + shown(found));
            if (known && !(found instanceof Map) && !words.contains(said)) {
                words.add(said);
            }
        }
        return words.isEmpty() ? "it names no fact" : String.join(", ", words);
    }

    private static String shown(Object found) {
        if (found instanceof List<?> list) {
            return "a list of " + list.size();
        }
        return found instanceof Double number
                ? BigDecimal.valueOf(number).setScale(4, RoundingMode.HALF_UP).stripTrailingZeros().toPlainString()
                : found.toString();
    }

    /** What is wrong with a condition; empty where nothing is. */
    public Optional<String> reasonAgainst(String text) {
        try {
            compile(text);
            return Optional.empty();
        } catch (Wrong wrong) {
            return Optional.of(wrong.getMessage());
        }
    }

    /** A condition that is not one. */
    private static final class Wrong extends Exception {
        Wrong(String message) {
            super(message);
        }
    }

    private CelAbstractSyntaxTree compile(String text) throws Wrong {
        if (text.length() > MOST_SIGNS) {
            throw new Wrong(
                    "is a condition of " + text.length() + " characters; at most " + MOST_SIGNS + " are allowed");
        }
        try {
            return compiler.compile(text).getAst();
        } catch (CelValidationException invalid) {
            CelIssue first = invalid.getErrors().getFirst();
            throw new Wrong("is not a valid condition, at column " + (first.getSourceLocation().getColumn() + 1) + ": "
                    + words(first.getMessage()));
        }
    }

    private String words(String message) {
        Matcher undeclared = UNDECLARED.matcher(message);
        if (undeclared.matches()) {
            TreeSet<String> known = new TreeSet<>(plain.keySet());
            known.addAll(groups.keySet());
            return "there is no fact " + undeclared.group(1) + NearestName.hint(undeclared.group(1), known);
        }
        Matcher undefined = UNDEFINED.matcher(message);
        if (undefined.matches()) {
            TreeSet<String> known = groups.values().stream().flatMap(fields -> fields.keySet().stream())
                    .collect(Collectors.toCollection(TreeSet::new));
            return "there is no field " + undefined.group(1) + NearestName.hint(undefined.group(1), known);
        }
        Matcher mistyped = MISTYPED.matcher(message);
        if (mistyped.matches()) {
            return "it should be " + KINDS.getOrDefault(mistyped.group(1), mistyped.group(1)) + ", and is "
                    + KINDS.getOrDefault(mistyped.group(2), mistyped.group(2));
        }
        Matcher unexpected = UNEXPECTED.matcher(message);
        if (unexpected.matches()) {
            return unexpected.group(1).equals("<EOF>") ? "it ends too early"
                    : "“" + unexpected.group(1) + "” is not expected here";
        }
        return message.replaceAll("\\s+", " ").strip();
    }

    /** Compiling takes longer than asking, and the same conditions are asked again and again. */
    private CelRuntime.Program program(String text) throws Wrong, CelEvaluationException {
        CelRuntime.Program known = programs.get(text);
        if (known != null) {
            return known;
        }
        CelRuntime.Program program = RUNTIME.createProgram(compile(text));
        if (programs.size() > MOST_PROGRAMS) {
            programs.clear();
        }
        programs.put(text, program);
        return program;
    }

    /** Whether it holds; empty where a fact that it asks for is not there. */
    public Optional<Boolean> holds(String text, Map<String, ?> facts) {
        Map<String, Object> all = new LinkedHashMap<>(facts);
        groups.keySet().forEach(group -> all.putIfAbsent(group, Map.of()));
        try {
            Object answer = program(text).eval(all);
            return answer instanceof Boolean holds ? Optional.of(holds) : Optional.empty();
        } catch (CelEvaluationException missing) {
            return Optional.empty();
        } catch (Wrong wrong) {
            throw new IllegalArgumentException(wrong.getMessage(), wrong);
        }
    }
}
