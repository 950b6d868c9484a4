package dev.paseo.service;

import java.util.stream.Stream;
import java.util.stream.Collectors;
import java.util.ArrayList;
import java.nio.file.Path;
import java.nio.file.Files;
import java.io.IOException;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.database.Json;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.audit.AuditTrail;
import org.springframework.stereotype.Component;
import java.util.TreeMap;
import java.util.Map;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.tngtech.archunit.base.DescribedPredicate;
import com.tngtech.archunit.core.domain.JavaCall;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.lang.ArchRule;
import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Select;
import org.junit.jupiter.api.Test;
import org.springframework.web.bind.annotation.RestController;

/** The rules of this house, each with something that breaks it, so that none goes vacuous. */
class ArchitectureTest {

    private static final JavaClasses SERVICE = new ClassFileImporter()
            .withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS)
            .importPackages("dev.paseo.service");

    private static void holds(ArchRule rule, Class<?>... breaking) {
        assertFalse(rule.evaluate(SERVICE).hasViolation(), () -> rule.evaluate(SERVICE).getFailureReport().toString());
        JavaClasses broken = new ClassFileImporter().importClasses(List.of(breaking));
        assertTrue(rule.evaluate(broken).hasViolation(), () -> "nothing breaks the rule: " + rule.getDescription());
    }

    @Test
    void onlyTheOneClockTellsTheTime() {
        holds(noClasses().should().callMethod(Instant.class, "now"), ReadsTheClock.class);
    }

    @Test
    void sqlIsInMappersAlone() {
        DescribedPredicate<JavaClass> databaseAccess = DescribedPredicate.describe("JDBC",
                type -> type.getPackageName().startsWith("java.sql")
                        || type.getPackageName().startsWith("org.springframework.jdbc"));
        holds(noClasses().that().doNotHaveSimpleName("PatientPool").and().doNotHaveSimpleName("WordHandler")
                .and().doNotHaveSimpleName("InstantHandler").should().dependOnClassesThat(databaseAccess),
                UsesJdbc.class);
        holds(classes().that().haveSimpleNameNotEndingWith("Mapper").should()
                .notBeAnnotatedWith(org.apache.ibatis.annotations.Mapper.class),
                MisnamedSql.class);
    }

    @Test
    void noCircleBetweenPackages() {
        holds(slices().matching("(**)").should().beFreeOfCycles(), Object.class, Iterable.class,
                java.util.Iterator.class, java.util.Spliterator.class);
    }

    @Test
    void mappersAndControllersAreNobodysBusiness() {
        holds(classes().that().haveSimpleNameEndingWith("Mapper").should().notBePublic(), OpenMapper.class);
        holds(classes().that().areAnnotatedWith(RestController.class).should().notBePublic(), OpenController.class);
    }

    @Test
    void noControllerCallsAMapper() {
        DescribedPredicate<JavaCall<?>> ofAMapper = DescribedPredicate.describe("a mapper's",
                call -> call.getTargetOwner().getSimpleName().endsWith("Mapper")
                        && call.getTargetOwner().isInterface());
        holds(noClasses().that().areAnnotatedWith(RestController.class).should().callCodeUnitWhere(ofAMapper),
                CallsAMapper.class);
    }

    /** Lines that are neither empty nor comment, of the whole of Paseo. */
    @Test
    void noFileHasThreeHundredLinesAndNoRoomFifteenHundred() throws IOException {
        Map<String, Integer> rooms = new TreeMap<>();
        List<String> tooLong = new ArrayList<>();
        for (Path source : sources()) {
            int lines = (int) Files.readAllLines(source).stream().map(String::strip)
                    .filter(line -> !line.isEmpty() && !line.matches("(//|/\\*|\\*).*")).count();
            rooms.merge(String.valueOf(source.getParent()), lines, Integer::sum);
            if (lines >= 300) {
                tooLong.add(source + " " + lines);
            }
        }
        assertEquals(List.of(), tooLong);
        assertEquals(Map.of(), rooms.entrySet().stream()
                .filter(room -> room.getKey().contains("/service/") && room.getValue() > 1500)
                .collect(Collectors.toMap(Map.Entry::getKey, Map.Entry::getValue)));
        assertTrue(rooms.size() > 60, "the sources were not found: " + rooms.keySet());
    }

    @Test
    void noMethodHasMoreThanFortyLines() throws IOException {
        assertEquals(List.of(), MethodLengths.longer(sources(), 40));
        assertFalse(MethodLengths.longer(sources(), 39).isEmpty(), "the sources were not read");
    }

    private static List<Path> sources() throws IOException {
        List<Path> all = new ArrayList<>();
        for (String module : List.of("core", "language", "api", "service", "agent", "cli", "demo")) {
            try (Stream<Path> files = Files.walk(Path.of("..", module, "src/main"))) {
                all.addAll(files.filter(file -> file.toString().endsWith(".java")).toList());
            }
        }
        return all;
    }

    /** A sum of collaborators is no collaborator: what it holds counts. */
    @Test
    void aClassHasAtMostFiveCollaborators() {
        Map<String, Integer> more = new TreeMap<>();
        SERVICE.stream().filter(type -> type.isMetaAnnotatedWith(Component.class) && !type.isRecord())
                .filter(type -> collaborators(type) > 5)
                .forEach(type -> more.put(type.getSimpleName(), collaborators(type)));
        assertEquals(Map.of(), more);
        assertEquals(6, collaborators(new ClassFileImporter().importClasses(HasSix.class, Three.class)
                .get(HasSix.class)), "three, and the three of a sum");
    }

    private static int collaborators(JavaClass type) {
        return type.getConstructors().stream().mapToInt(each -> each.getRawParameterTypes().stream()
                .mapToInt(given -> isSum(given) ? collaborators(given) : isCollaborator(given) ? 1 : 0)
                .sum()).max().orElse(0);
    }

    /** A component within another, or one that is only its parts. */
    private static boolean isSum(JavaClass type) {
        return type.isAnnotatedWith(Component.class) && (type.isRecord() || type.getEnclosingClass().isPresent());
    }

    /** What is asked to do something: not settings, and not how values are written. */
    private static boolean isCollaborator(JavaClass type) {
        return type.getPackageName().startsWith("dev.paseo.service") && !type.isRecord()
                && !type.getSimpleName().equals("Json");
    }

    @Component
    private record Three(AuditTrail one, ServiceClock two, Transactions three) {}

    @Component
    private static final class HasSix {
        HasSix(AuditTrail one, ServiceClock two, Transactions three, Json json, Three others) {}
    }

    @RestController
    private static final class CallsAMapper {
        private final MisnamedMapper mapper = () -> 1;

        int call() {
            return mapper.one();
        }
    }

    private interface MisnamedMapper {
        int one();
    }

    private static final class ReadsTheClock {
        Instant read() {
            return Instant.now();
        }
    }

    private static final class UsesJdbc {
        java.sql.@org.jspecify.annotations.Nullable Connection connection;
    }

    @org.apache.ibatis.annotations.Mapper
    private interface MisnamedSql {
        @Select("select 1")
        int one();
    }

    /** Breaks a rule by being public. */
    public interface OpenMapper {}

    /** Breaks a rule by being public. */
    @RestController
    public static final class OpenController {}
}
