package dev.paseo.core;

import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.lang.ArchRule;
import com.tngtech.archunit.lang.syntax.ArchRuleDefinition;
import org.junit.jupiter.api.Test;

/** The rules of this house, each with something that breaks it, so that none goes vacuous. */
class ArchitectureTest {

    private static final JavaClasses CORE = new ClassFileImporter()
            .withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS)
            .importPackages("dev.paseo.core");
    private static final JavaClasses TESTS = new ClassFileImporter().importPackages("dev.paseo.core");

    /** And what a semantic version is, which a library knows better and which is as pure as the rest. */
    private static final ArchRule NOTHING_BUT_JAVA = ArchRuleDefinition.classes().that()
            .resideInAPackage("dev.paseo.core..")
            .should().onlyDependOnClassesThat()
            .resideInAnyPackage("java..", "dev.paseo.core..", "org.jspecify..", "org.semver4j..");
    private static final ArchRule NO_CLOCK = ArchRuleDefinition.noClasses().should()
            .callMethod(java.time.Instant.class, "now")
            .orShould().callMethod(System.class, "currentTimeMillis");

    @Test
    void coreSeesNothingButJava() {
        assertFalse(NOTHING_BUT_JAVA.evaluate(CORE).hasViolation(),
                () -> NOTHING_BUT_JAVA.evaluate(CORE).getFailureReport().toString());
        assertTrue(NOTHING_BUT_JAVA.evaluate(TESTS).hasViolation(), "the tests use JUnit, so the rule must see that");
    }

    @Test
    void coreReadsNoClock() {
        assertFalse(NO_CLOCK.evaluate(CORE).hasViolation());
        assertTrue(NO_CLOCK.evaluate(new ClassFileImporter().importClasses(ReadsTheClock.class)).hasViolation());
    }

    @Test
    void noCircleBetweenPackages() {
        ArchRule rule = slices().matching("dev.paseo.core.(*)..").should().beFreeOfCycles();
        assertFalse(rule.evaluate(CORE).hasViolation(), () -> rule.evaluate(CORE).getFailureReport().toString());
        ArchRule circles = slices().matching("java.(*)..").should().beFreeOfCycles();
        assertTrue(circles.evaluate(new ClassFileImporter().importClasses(Object.class, Iterable.class,
                java.util.Iterator.class, java.util.Spliterator.class)).hasViolation());
    }

    private static final class ReadsTheClock {
        java.time.Instant read() {
            return java.time.Instant.now();
        }
    }
}
