package taxiomet.cli;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static java.util.stream.Collectors.counting;
import static java.util.stream.Collectors.groupingBy;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.base.DescribedPredicate;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ImportOption.DoNotIncludeTests;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;

/** The arrows of the house: cli -> charters, sources, reports -> core. */
@AnalyzeClasses(packages = "taxiomet", importOptions = DoNotIncludeTests.class)
class ArchitectureTest {
    private static final int MOST_LINES = 400;

    /** Every class of the module core, whatever its package. */
    private static final DescribedPredicate<JavaClass> OF_CORE = DescribedPredicate.describe(
            "are of core",
            type -> type.getBaseComponentType()
                    .getSource()
                    .map(source -> source.getUri().toString())
                    .filter(uri -> uri.contains("/core/target/") || uri.contains("taxiomet-core"))
                    .isPresent());

    @ArchTest
    static final ArchRule CORE_DEPENDS_ON_JAVA_AND_TWO_LIBRARIES = classes()
            .that(OF_CORE)
            .should()
            .onlyDependOnClassesThat(OF_CORE.or(JavaClass.Predicates.resideInAnyPackage(
                    "java..", "javax.crypto..", "com.google.re2j..", "com.dynatrace.hash4j..")));

    /** The rule above holds for nothing where core's classes are not found. */
    @ArchTest
    static void core_is_found(JavaClasses all) {
        assertThat(all.stream().filter(OF_CORE).map(JavaClass::getPackageName))
                .contains(
                        "taxiomet.charter",
                        "taxiomet.check",
                        "taxiomet.check.column",
                        "taxiomet.check.link",
                        "taxiomet.expression",
                        "taxiomet.finding",
                        "taxiomet.hint",
                        "taxiomet.keys",
                        "taxiomet.rehearse",
                        "taxiomet.rows",
                        "taxiomet.spill",
                        "taxiomet.survey",
                        "taxiomet.values",
                        "taxiomet.vet",
                        "taxiomet.work");
    }

    @ArchTest
    static final ArchRule SOURCES_KNOW_CORE_ALONE = noClasses()
            .that()
            .resideInAPackage("taxiomet.sources..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                    "taxiomet.charters..",
                    "taxiomet.reports..",
                    "taxiomet.cli..",
                    "taxiomet.check..",
                    "taxiomet.keys..");

    @ArchTest
    static final ArchRule CHARTERS_KNOW_CORE_ALONE = noClasses()
            .that()
            .resideInAPackage("taxiomet.charters..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(
                    "taxiomet.sources..",
                    "taxiomet.reports..",
                    "taxiomet.cli..",
                    "taxiomet.check..",
                    "taxiomet.keys..");

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
            .that(OF_CORE.and(DescribedPredicate.not(JavaClass.Predicates.resideInAPackage("taxiomet.spill.."))))
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("java.nio.channels..", "java.io..")
            .orShould()
            .dependOnClassesThat()
            .haveFullyQualifiedName("java.nio.file.Files");

    @ArchTest
    static final ArchRule PACKAGES_HAVE_NO_CIRCLES =
            slices().matching("taxiomet.(**)").should().beFreeOfCycles();

    @ArchTest
    static void long_files_say_why_they_stand_in_one_file(JavaClasses all) throws IOException {
        List<Path> silent = new ArrayList<>();
        for (String module : List.of("core", "sources", "charters", "reports", "cli")) {
            try (Stream<Path> files = Files.walk(Path.of("..", module, "src", "main", "java"))) {
                for (Path file : files.filter(Files::isRegularFile).toList()) {
                    String text = Files.readString(file);
                    String firstComment = text.replaceFirst("(?s)^.*?(/\\*\\*.*?\\*/).*$", "$1");
                    boolean saysWhy =
                            firstComment.replaceAll("\\s+(\\* )?", " ").contains("in one file");
                    if (text.lines().count() > MOST_LINES && !saysWhy) {
                        silent.add(file);
                    }
                }
            }
        }
        assertThat(silent).isEmpty();
    }

    @ArchTest
    static void no_package_holds_more_than_25_files(JavaClasses all) {
        Map<String, Long> files = all.stream()
                .filter(type -> type.isTopLevelClass() && !type.getSimpleName().equals("package-info"))
                .collect(groupingBy(JavaClass::getPackageName, counting()));
        files.values().removeIf(count -> count <= 25);
        assertThat(files).isEmpty();
    }
}
