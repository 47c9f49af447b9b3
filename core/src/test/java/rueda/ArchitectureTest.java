package rueda;

import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import java.util.List;

/** The arrows between the packages of the core point downward only, in the order of docs/architecture.md. */
@AnalyzeClasses(packages = "rueda", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {

    /** Lowest first: none depends on one that comes later. */
    private static final List<String> ORDER = List.of("quantity", "recording", "machine", "profile", "plant", "bus", "drive", "plc", "plcopen", "edit", "advice", "bench", "trial", "proof");

    @ArchTest
    static void arrowsPointDownward(JavaClasses classes) {
        for (int i = 0; i < ORDER.size() - 1; i++) {
            String[] above = ORDER.subList(i + 1, ORDER.size()).stream().map(p -> "rueda." + p + "..").toArray(String[]::new);
            noClasses().that().resideInAPackage("rueda." + ORDER.get(i) + "..").should().dependOnClassesThat().resideInAnyPackage(above).check(classes);
        }
    }

    @ArchTest
    static final ArchRule NOTHING_NEEDS_A_FORMAT = noClasses().that().resideOutsideOfPackage("rueda.format..").should().dependOnClassesThat().resideInAPackage("rueda.format..");
    @ArchTest
    static final ArchRule NO_CYCLES = slices().matching("rueda.(*)..").should().beFreeOfCycles();
    @ArchTest
    static final ArchRule PURE_JAVA = noClasses().should().dependOnClassesThat()
            .resideInAnyPackage("org.springframework..", "jakarta..", "tools.jackson..", "com.fasterxml..");
}
