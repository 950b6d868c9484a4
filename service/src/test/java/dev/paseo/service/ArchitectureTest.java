package dev.paseo.service;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
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
        holds(noClasses().that().doNotHaveSimpleName("PatientPool").and().doNotHaveSimpleName("WordHandler").should()
                .dependOnClassesThat(databaseAccess), UsesJdbc.class);
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
