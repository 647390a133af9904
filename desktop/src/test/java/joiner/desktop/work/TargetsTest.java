package joiner.desktop.work;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import joiner.database.Target;
import joiner.desktop.work.Targets.Known;
import joiner.engine.Dialects;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class TargetsTest {
  private static final Known STUDIO = new Known("postgresql", "localhost:5432/studio", "ada");
  private static final Known TRIAL = new Known("postgresql", "localhost:5432/trial", "ada");
  private static final Known FILE = new Known("sqlite", "/tmp/studio.sqlite", "");

  @TempDir private Path folder;

  private Targets targets() {
    return new Targets(Settings.in(folder.resolve("settings.properties")));
  }

  @Test
  void whatWasUsedForADesignIsKnownAtTheNextStartTheNewestFirst() throws IOException {
    Optional<Path> design = Optional.of(folder.resolve("design"));
    Targets first = targets();
    first.keep(design, STUDIO);
    first.keep(design, FILE);
    first.keep(design, TRIAL);
    first.keep(Optional.of(folder.resolve("other")), TRIAL);
    first.keep(design, STUDIO);
    first.save();
    Targets second = targets();
    assertThat(second.of(design, Dialects.POSTGRESQL)).containsExactly(STUDIO, TRIAL);
    assertThat(second.of(design, Dialects.SQLITE)).containsExactly(FILE);
    assertThat(second.of(design, Dialects.MARIADB)).isEmpty();
    assertThat(second.of(Optional.empty(), Dialects.POSTGRESQL)).isEmpty();
    second.forget(design, STUDIO);
    assertThat(second.of(design, Dialects.POSTGRESQL)).containsExactly(TRIAL);
  }

  @Test
  void onlySoManyAreKept() {
    Targets targets = targets();
    for (int i = 0; i < 30; i++) {
      targets.keep(Optional.empty(), new Known("h2", "file " + i, ""));
    }
    assertThat(targets.of(Optional.empty(), Dialects.H2)).hasSize(20);
    assertThat(targets.of(Optional.empty(), Dialects.H2).getFirst().place()).isEqualTo("file 29");
  }

  @Test
  void aPasswordIsRememberedButWrittenNowhere() throws IOException {
    Targets targets = targets();
    Target target = targets.target(Dialects.POSTGRESQL, STUDIO, "kiln+7");
    assertThat(target.url()).isEqualTo("jdbc:postgresql://localhost:5432/studio");
    assertThat(target.user()).contains("ada");
    assertThat(target.password()).contains("kiln+7");
    assertThat(target.toString()).doesNotContain("kiln+7");
    targets.keep(Optional.empty(), STUDIO);
    targets.save();
    assertThat(targets.passwordOf(STUDIO)).isEqualTo("kiln+7");
    assertThat(targets().passwordOf(STUDIO)).isEmpty();
    assertThat(Files.readString(folder.resolve("settings.properties"))).doesNotContain("kiln");
    targets.forget(Optional.empty(), STUDIO);
    assertThat(targets.passwordOf(STUDIO)).isEmpty();
  }

  @Test
  void anAddressBecomesAUrlOfItsEngine() {
    assertThat(Dialects.MARIADB.urlOf(" kiln:3306/studio "))
        .isEqualTo("jdbc:mariadb://kiln:3306/studio");
    assertThat(Dialects.SQLITE.urlOf("/tmp/a b.sqlite")).isEqualTo("jdbc:sqlite:/tmp/a b.sqlite");
    assertThat(Dialects.POSTGRESQL.urlOf("jdbc:postgresql://x/y?ssl=true"))
        .isEqualTo("jdbc:postgresql://x/y?ssl=true");
    assertThat(targets().target(Dialects.H2, new Known("h2", "/x", ""), "").user()).isEmpty();
  }
}
