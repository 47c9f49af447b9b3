package rueda;

import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

/** The arrows between the packages of the core point downward only, in the order of docs/architecture.md. */
@AnalyzeClasses(packages = "rueda", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {

    private static ArchRule notAbove(String own, String... above) {
        return noClasses().that().resideInAPackage("rueda." + own + "..").should().dependOnClassesThat().resideInAnyPackage(above);
    }

    @ArchTest
    static final ArchRule QUANTITY = notAbove("quantity", "rueda.machine..", "rueda.profile..", "rueda.plant..", "rueda.bus..",
            "rueda.drive..", "rueda.plc..", "rueda.plcopen..", "rueda.advice..", "rueda.bench..", "rueda.proof..");
    @ArchTest
    static final ArchRule MACHINE = notAbove("machine", "rueda.profile..", "rueda.plant..", "rueda.bus..", "rueda.drive..",
            "rueda.plc..", "rueda.plcopen..", "rueda.advice..", "rueda.bench..", "rueda.proof..");
    @ArchTest
    static final ArchRule PROFILE = notAbove("profile", "rueda.plant..", "rueda.bus..", "rueda.drive..", "rueda.plc..",
            "rueda.plcopen..", "rueda.advice..", "rueda.bench..", "rueda.proof..");
    @ArchTest
    static final ArchRule PLANT = notAbove("plant", "rueda.bus..", "rueda.drive..", "rueda.plc..", "rueda.plcopen..",
            "rueda.advice..", "rueda.bench..", "rueda.proof..");
    @ArchTest
    static final ArchRule BUS = notAbove("bus", "rueda.drive..", "rueda.plc..", "rueda.plcopen..", "rueda.advice..", "rueda.bench..", "rueda.proof..");
    @ArchTest
    static final ArchRule DRIVE = notAbove("drive", "rueda.plc..", "rueda.plcopen..", "rueda.advice..", "rueda.bench..", "rueda.proof..");
    @ArchTest
    static final ArchRule PLC = notAbove("plc", "rueda.plcopen..", "rueda.advice..", "rueda.bench..", "rueda.proof..");
    @ArchTest
    static final ArchRule PLCOPEN = notAbove("plcopen", "rueda.advice..", "rueda.bench..", "rueda.proof..");
    @ArchTest
    static final ArchRule ADVICE = notAbove("advice", "rueda.bench..", "rueda.proof..");
    @ArchTest
    static final ArchRule BENCH = notAbove("bench", "rueda.proof..");
    @ArchTest
    static final ArchRule NOTHING_NEEDS_A_FORMAT = noClasses().that().resideOutsideOfPackage("rueda.format..").should().dependOnClassesThat().resideInAPackage("rueda.format..");
    @ArchTest
    static final ArchRule NO_CYCLES = slices().matching("rueda.(*)..").should().beFreeOfCycles();
    @ArchTest
    static final ArchRule PURE_JAVA = noClasses().should().dependOnClassesThat()
            .resideInAnyPackage("org.springframework..", "jakarta..", "tools.jackson..", "com.fasterxml..");
}
