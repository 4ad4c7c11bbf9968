package taxiomet.cli;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption.DoNotIncludeTests;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

/** The arrows of the house: cli -> charters, sources, reports -> core. */
@AnalyzeClasses(packages = "taxiomet", importOptions = DoNotIncludeTests.class)
class ArchitectureTest {
    private static final String[] CORE = {
        "taxiomet.charter..", "taxiomet.rows..", "taxiomet.check..", "taxiomet.finding..", "taxiomet.spill.."
    };

    @ArchTest
    static final ArchRule CORE_DEPENDS_ON_JAVA_AND_TWO_LIBRARIES = classes()
            .that()
            .resideInAnyPackage(CORE)
            .should()
            .onlyDependOnClassesThat()
            .resideInAnyPackage(
                    "taxiomet.charter..",
                    "taxiomet.rows..",
                    "taxiomet.check..",
                    "taxiomet.finding..",
                    "taxiomet.spill..",
                    "java..",
                    "com.google.re2j..",
                    "com.dynatrace.hash4j..");

    @ArchTest
    static final ArchRule SOURCES_KNOW_CORE_ALONE = noClasses()
            .that()
            .resideInAPackage("taxiomet.sources..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("taxiomet.charters..", "taxiomet.reports..", "taxiomet.cli..", "taxiomet.check..");

    @ArchTest
    static final ArchRule CHARTERS_KNOW_CORE_ALONE = noClasses()
            .that()
            .resideInAPackage("taxiomet.charters..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("taxiomet.sources..", "taxiomet.reports..", "taxiomet.cli..", "taxiomet.check..");

    @ArchTest
    static final ArchRule REPORTS_KNOW_RESULTS_ALONE = noClasses()
            .that()
            .resideInAPackage("taxiomet.reports..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                    "taxiomet.sources..",
                    "taxiomet.charters..",
                    "taxiomet.cli..",
                    "taxiomet.check..",
                    "taxiomet.rows..");

    @ArchTest
    static final ArchRule ONLY_SPILL_WRITES_FILES_IN_CORE = noClasses()
            .that()
            .resideInAnyPackage("taxiomet.charter..", "taxiomet.rows..", "taxiomet.check..", "taxiomet.finding..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("java.nio.channels..", "java.io..")
            .orShould()
            .dependOnClassesThat()
            .haveFullyQualifiedName("java.nio.file.Files");

    @ArchTest
    static final ArchRule PACKAGES_HAVE_NO_CIRCLES =
            slices().matching("taxiomet.(*)..").should().beFreeOfCycles();
}
