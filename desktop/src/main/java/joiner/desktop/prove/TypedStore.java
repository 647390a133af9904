package joiner.desktop.prove;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Lane;
import joiner.desktop.work.OpenDesign;
import joiner.desktop.work.Request;
import joiner.desktop.work.Workbench;
import joiner.entry.Entered;
import joiner.format.TypedRows;
import joiner.meaning.Draft;

/** Keeps what was typed and not saved from one start to the next, design by design. */
final class TypedStore {
  private final Workbench bench;
  private final Texts texts;
  private final Consumer<List<Entered>> returned;
  private Optional<OpenDesign> of = Optional.empty();
  private boolean known;
  private Optional<Path> keptAt = Optional.empty();
  private List<Entered> kept = List.of();

  /**
   * Nothing yet.
   *
   * @param returned gets what was typed when the design was open before
   */
  TypedStore(Workbench bench, Texts texts, Consumer<List<Entered>> returned) {
    this.bench = bench;
    this.texts = texts;
    this.returned = returned;
  }

  /** Whether another design is on the bench than before; what was typed into it is looked for. */
  boolean isOther() {
    OpenDesign now = bench.opened();
    if (of.filter(before -> before == now).isPresent()) {
      return false;
    }
    of = Optional.of(now);
    known = false;
    keptAt = Optional.empty();
    kept = List.of();
    Draft draft = bench.draft();
    Path place = bench.keeper().place();
    bench
        .runner()
        .start(
            Request.<List<Entered>>of(
                    this,
                    texts.get("typed.reading"),
                    progress -> TypedRows.of(place).read(draft),
                    typed -> {
                      if (of.filter(o -> o == now).isPresent()) {
                        known = true;
                        kept = typed;
                        keptAt = Optional.of(place);
                        returned.accept(typed);
                      }
                    },
                    failure -> {
                      known = true;
                      bench.tell(failure);
                    })
                .in(Lane.SAVING)); // After what is being kept, which it may be.
    return true;
  }

  /** Keeps what is typed now, once it is known what was there before. */
  void keep(List<Entered> typed) {
    Path place = bench.keeper().place();
    if (!known || (typed.equals(kept) && keptAt.equals(Optional.of(place)))) {
      return;
    }
    Optional<Path> before = keptAt.filter(path -> !path.equals(place));
    kept = typed;
    keptAt = Optional.of(place);
    Draft draft = bench.draft();
    bench
        .runner()
        .start(
            Request.<Boolean>of(
                    List.of(this, place),
                    texts.get("typed.keeping"),
                    progress -> {
                      TypedRows.of(place).keep(draft, typed);
                      if (before.isPresent()) {
                        TypedRows.of(before.get()).keep(draft, List.of());
                      }
                      return true;
                    },
                    done -> {},
                    bench::tell)
                .in(Lane.SAVING));
  }
}
