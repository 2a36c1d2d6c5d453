package nocking.app;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import org.junit.jupiter.api.Test;

/** Arrows between the modules, as docs/architecture.md draws them. */
class RoomsTest {
  private static final String[] CORE = {
    "nocking.quantity..",
    "nocking.algebra..",
    "nocking.network..",
    "nocking.element..",
    "nocking.sensor..",
    "nocking.stage..",
    "nocking.converter..",
    "nocking.path..",
    "nocking.points..",
    "nocking.run..",
    "nocking.placement..",
    "nocking.fit..",
    "nocking.table..",
    "nocking.firmware..",
    "nocking.check..",
    "nocking.fault..",
    "nocking.channel..",
    "nocking.finding..",
    "nocking.analysis.."
  };
  private static final String[] OUTSIDE_CORE = {
    "nocking.bench..",
    "nocking.book..",
    "nocking.report..",
    "nocking.demo..",
    "nocking.cli..",
    "nocking.app.."
  };
  private static final JavaClasses ALL =
      new ClassFileImporter()
          .withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS)
          .importPackages("nocking");

  private static void never(String[] who, String... whom) {
    noClasses()
        .that()
        .resideInAnyPackage(who)
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage(whom)
        .check(ALL);
  }

  @Test
  void coreKnowsNobody() {
    never(CORE, OUTSIDE_CORE);
  }

  @Test
  void benchBookReportAndDemoKnowOnlyWhatLiesBelow() {
    never(
        new String[] {"nocking.bench.."},
        "nocking.book..",
        "nocking.report..",
        "nocking.demo..",
        "nocking.cli..",
        "nocking.app..");
    never(
        new String[] {"nocking.book.."},
        "nocking.bench..",
        "nocking.report..",
        "nocking.demo..",
        "nocking.cli..",
        "nocking.app..");
    never(
        new String[] {"nocking.report.."},
        "nocking.book..",
        "nocking.demo..",
        "nocking.cli..",
        "nocking.app..");
    never(
        new String[] {"nocking.demo.."},
        "nocking.book..",
        "nocking.report..",
        "nocking.cli..",
        "nocking.app..");
    // A page that a command writes is the very page of the window.
    never(new String[] {"nocking.cli.."}, "nocking.app..");
  }

  @Test
  void onlyTheApplicationSeesJavaFx() {
    never(CORE, "javafx..");
    never(
        new String[] {
          "nocking.bench..", "nocking.book..", "nocking.report..", "nocking.cli..", "nocking.demo.."
        },
        "javafx..");
  }

  @Test
  void controlsKnowNoStageAndNoShell() {
    never(new String[] {"nocking.app.control.."}, "nocking.app.step..", "nocking.app.shell..");
    never(new String[] {"nocking.app.step.."}, "nocking.app.shell..");
    never(
        new String[] {"nocking.app.desk.."},
        "nocking.app.control..",
        "nocking.app.step..",
        "nocking.app.shell..");
  }
}
