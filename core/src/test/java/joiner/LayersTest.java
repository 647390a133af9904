package joiner;

import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.lang.syntax.ArchRuleDefinition;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Each package of the core uses only those before it. */
class LayersTest {
  private static final List<String> LOWEST_FIRST =
      List.of(
          "naming",
          "shape",
          "expression",
          "dependency",
          "model",
          "rows",
          "meaning",
          "reasoning",
          "change",
          "catalog",
          "engine",
          "discovery",
          "edit",
          "deletion",
          "joining",
          "split",
          "outline",
          "finding",
          "audit",
          "entry",
          "compare",
          "ddl",
          "format",
          "source");

  private static final JavaClasses CORE =
      new ClassFileImporter()
          .withImportOption(new ImportOption.DoNotIncludeTests())
          .importPackages("joiner");

  @Test
  void aPackageUsesOnlyThoseBelowIt() {
    for (int i = 0; i < LOWEST_FIRST.size(); i++) {
      String[] above =
          LOWEST_FIRST.stream()
              .skip(i + 1)
              .map(name -> "joiner." + name + "..")
              .toArray(String[]::new);
      if (above.length > 0) {
        ArchRuleDefinition.noClasses()
            .that()
            .resideInAPackage("joiner." + LOWEST_FIRST.get(i) + "..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage(above)
            .check(CORE);
      }
    }
  }

  @Test
  void packagesFormNoCircle() {
    slices().matching("joiner.(*)..").should().beFreeOfCycles().check(CORE);
  }

  /** Nothing in an edit can be another one the next time it is looked at. */
  @Test
  void editsAndChangesAreData() {
    ArchRuleDefinition.classes()
        .that()
        .implement(joiner.edit.Edit.class)
        .should()
        .beRecords()
        .check(CORE);
    ArchRuleDefinition.classes()
        .that()
        .implement(joiner.change.Change.class)
        .should()
        .beRecords()
        .check(CORE);
  }

  @Test
  void theCoreKnowsNeitherWindowsNorDatabases() {
    ArchRuleDefinition.noClasses()
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage("javafx..", "java.sql..", "java.awt..")
        .check(CORE);
  }
}
