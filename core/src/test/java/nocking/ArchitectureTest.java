package nocking;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.util.List;
import java.util.Random;
import java.util.concurrent.ThreadLocalRandom;
import java.util.random.RandomGenerator;
import org.junit.jupiter.api.Test;

/**
 * Arrows between the packages of the core point only one way, as docs/architecture.md draws them.
 */
class ArchitectureTest {
  private static final List<String> ORDER =
      List.of(
          "quantity",
          "algebra",
          "network",
          "element",
          "sensor",
          "stage",
          "converter",
          "path",
          "parts",
          "tolerance",
          "points",
          "placement",
          "fit",
          "table",
          "wiring",
          "check",
          "procedure",
          "run",
          "band",
          "firmware",
          "prior",
          "channel",
          "datasheet",
          "fault",
          "diagnosis",
          "misfit",
          "view",
          "finding",
          "analysis",
          "proposal");

  private static final JavaClasses CORE =
      new ClassFileImporter()
          .withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS)
          .importPackages("nocking");

  @Test
  void noPackageLooksAtALaterOne() {
    for (int i = 0; i < ORDER.size() - 1; i++) {
      String[] later =
          ORDER.subList(i + 1, ORDER.size()).stream()
              .map(p -> "nocking." + p + "..")
              .toArray(String[]::new);
      noClasses()
          .that()
          .resideInAPackage("nocking." + ORDER.get(i) + "..")
          .should()
          .dependOnClassesThat()
          .resideInAnyPackage(later)
          .check(CORE);
    }
  }

  @Test
  void everyPackageHasItsPlace() {
    List<String> found =
        CORE.stream()
            .map(c -> c.getPackageName().replace("nocking.", ""))
            .distinct()
            .sorted()
            .toList();
    assertThat(ORDER).containsAll(found);
  }

  @Test
  void thereAreNoCycles() {
    slices().matching("nocking.(*)..").should().beFreeOfCycles().check(CORE);
  }

  @Test
  void analysisKnowsNoClockNoFileAndNoWindow() {
    noClasses()
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage(
            "javafx..", "java.awt..", "java.io..", "java.nio.file..", "java.time..", "java.sql..")
        .check(CORE);
    noClasses().should().callMethod(System.class, "nanoTime").check(CORE);
    noClasses().should().callMethod(System.class, "currentTimeMillis").check(CORE);
  }

  /**
   * The same document gives the same answer: what is drawn at random is drawn from a stated seed.
   */
  @Test
  void randomNumbersComeFromSeedsAndOnlyWhereTheyAreAskedFor() {
    noClasses().should().callConstructor(Random.class).check(CORE);
    noClasses().should().callMethod(Math.class, "random").check(CORE);
    noClasses().should().dependOnClassesThat().areAssignableTo(ThreadLocalRandom.class).check(CORE);
    noClasses()
        .that()
        .resideOutsideOfPackages(
            "nocking.tolerance..", "nocking.diagnosis..", "nocking.run..", "nocking.fit..")
        .should()
        .dependOnClassesThat()
        .areAssignableTo(RandomGenerator.class)
        .check(CORE);
  }
}
