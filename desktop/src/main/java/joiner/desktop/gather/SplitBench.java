package joiner.desktop.gather;

import java.time.Duration;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import joiner.dependency.AttributeSet;
import joiner.desktop.work.Progress;
import joiner.desktop.work.Request;
import joiner.desktop.work.Workbench;
import joiner.discovery.ColumnProfile;
import joiner.discovery.Contradiction;
import joiner.discovery.Fact;
import joiner.discovery.FactSearch;
import joiner.discovery.FoundMultivalued;
import joiner.discovery.MultivaluedSearch;
import joiner.edit.Edit;
import joiner.edit.Prepared;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.NamingPolicy;
import joiner.rows.EncodedTable;
import joiner.source.ImportOptions;
import joiner.source.ProfiledSource;
import joiner.source.SourceImport;
import joiner.split.Split;
import joiner.split.SplitChoices;
import joiner.split.SplitTable;

/**
 * One table of a source on the split bench: the facts found, those confirmed, the contradictions
 * settled, and the split they make. Belongs to the window's thread; searching and splitting are
 * done in the background, on what was confirmed when they began.
 */
final class SplitBench {
  private static final Duration LONGEST_SEARCH = Duration.ofMinutes(1);

  private final Workbench bench;
  private final ProfiledSource profiled;
  private final int place;
  private final Set<Fact> accepted = new LinkedHashSet<>();
  private final Set<Fact> own = new LinkedHashSet<>();
  private final Map<Settled, String> settled = new LinkedHashMap<>();
  private final Set<List<Integer>> naturalKeys = new LinkedHashSet<>();
  private final Set<Integer> skipped = new LinkedHashSet<>();
  private boolean withRows = true;
  private long firstNumber = 1;
  private final ReadOnlyObjectWrapper<State> state = new ReadOnlyObjectWrapper<>(State.SEARCHING);
  private boolean making;
  private Optional<TableId> made = Optional.empty();
  private volatile boolean stopped;
  private boolean searching = true;
  private FactSearch found = new FactSearch(List.of(), true);
  private List<FoundMultivalued> multivalued = List.of();

  /** What was chosen for rows that contradict a fact. */
  private record Settled(Fact.Decides fact, List<String> determinant) {}

  /**
   * What the bench shows.
   *
   * @param facts found and own, best first; empty while searching
   * @param searching whether facts are still being looked for
   * @param complete whether all were looked for
   * @param preview of the split; empty while it is worked out or refused
   * @param refusal why there is no preview, if it was refused
   */
  record State(
      List<Fact> facts,
      boolean searching,
      boolean complete,
      Optional<Preview> preview,
      Optional<String> refusal) {
    static final State SEARCHING =
        new State(List.of(), true, true, Optional.empty(), Optional.empty());
  }

  /**
   * A split as it would be.
   *
   * @param table the table to split, as it would be added
   * @param design after the split; before it, while contradictions are open
   */
  record Preview(Table table, Map<Integer, FieldId> columns, Split split, Design design) {
    /**
     * A table's label without that of the split table in front, as long as no other of the new
     * tables is called so too.
     */
    String shortName(TableId id, Collection<TableId> shown) {
      String own = shortened(id);
      boolean twice = shown.stream().filter(t -> shortened(t).equals(own)).count() > 1;
      return twice ? design.table(id).label() : own;
    }

    private String shortened(TableId id) {
      String label = design.table(id).label();
      String prefix = table.label() + " ";
      return label.startsWith(prefix)
          ? NamingPolicy.labelFor(label.substring(prefix.length()))
          : label;
    }

    /** Tables that were not there before. */
    List<TableId> arriving(Design before) {
      return design.tables().stream()
          .map(Table::id)
          .filter(id -> before.find(id).isEmpty())
          .toList();
    }
  }

  SplitBench(Workbench bench, ProfiledSource profiled, int place) {
    this.bench = bench;
    this.profiled = profiled;
    this.place = place;
    if (isWhole()) {
      bench
          .runner()
          .start(
              Request.<Searched>of(
                      new Topic(this, "search"),
                      "Looking for what decides what in " + profiled.source().name(),
                      this::search,
                      this::found,
                      failure -> {
                        searching = false;
                        refuse(failure.message());
                      })
                  .whenStopped(this::searchStopped));
    }
  }

  /** Whether all rows are here; only then they say what decides what, and can be split. */
  boolean isWhole() {
    return profiled.source().whole().isEmpty();
  }

  /** What a request of this bench is about; a newer one about the same ends the older. */
  private record Topic(SplitBench bench, String about) {
    @Override
    public boolean equals(Object other) {
      return other instanceof Topic that && bench == that.bench && about.equals(that.about);
    }

    @Override
    public int hashCode() {
      return System.identityHashCode(bench) * 31 + about.hashCode();
    }
  }

  private Searched search(Progress progress) {
    long end = System.nanoTime() + LONGEST_SEARCH.toNanos();
    BooleanSupplier stop = () -> stopped || progress.stopped() || System.nanoTime() - end > 0;
    FactSearch facts = FactSearch.of(cells(), profiles(), stop);
    return new Searched(facts, MultivaluedSearch.of(cells(), stop));
  }

  /** Somebody stopped the work itself: what was found so far is not known then. */
  private void searchStopped() {
    searching = false;
    found = new FactSearch(List.of(), false);
    refresh();
  }

  ReadOnlyObjectProperty<State> stateProperty() {
    return state.getReadOnlyProperty();
  }

  EncodedTable cells() {
    return profiled.source().tables().get(place).cells();
  }

  List<ColumnProfile> profiles() {
    return profiled.profiles().get(place);
  }

  ProfiledSource profiled() {
    return profiled;
  }

  /** Columns that have nothing to do with each other for each value of some. */
  List<FoundMultivalued> multivalued() {
    return multivalued;
  }

  /** Ends the search with what it has. */
  void stop() {
    stopped = true;
  }

  /** What was found in the rows. */
  private record Searched(FactSearch facts, List<FoundMultivalued> multivalued) {}

  private void found(Searched search) {
    searching = false;
    found = search.facts();
    multivalued = search.multivalued();
    found.facts().stream()
        .filter(fact -> fact.score() >= FactSearch.PLAUSIBLE)
        .filter(fact -> !(fact instanceof Fact.SameThing)) // Values change only when told to.
        .forEach(accepted::add);
    refresh();
  }

  boolean isAccepted(Fact fact) {
    return accepted.contains(fact);
  }

  boolean isOwn(Fact fact) {
    return own.contains(fact);
  }

  /** Confirms or rejects a fact. */
  void accept(Fact fact, boolean isTrue) {
    if (isTrue ? accepted.add(fact) : accepted.remove(fact)) {
      refresh();
    }
  }

  /** Adds a dependency somebody knows of; the rows say what they say about it. */
  void state(AttributeSet determinant, int dependent) {
    bench
        .runner()
        .start(
            Request.of(
                new Topic(this, "fact"),
                "Asking the rows",
                progress -> FactSearch.ask(cells(), profiles(), determinant, dependent),
                this::stated,
                failure -> refuse(failure.message())));
  }

  private void stated(Fact.Decides fact) {
    Optional<Fact> known =
        facts().stream().filter(other -> other.id().equals(fact.id())).findFirst();
    if (known.isEmpty()) {
      own.add(fact);
    }
    accepted.add(known.orElse(fact));
    refresh();
  }

  /** Chooses a value for the rows that contradict a fact. */
  void settle(Split.Open open, Contradiction contradiction, String value) {
    factOf(open)
        .ifPresent(fact -> settled.put(new Settled(fact, contradiction.determinant()), value));
    refresh();
  }

  /** Chooses for every contradiction of a fact the value most rows have. */
  void settleByMajority(Split.Open open) {
    factOf(open)
        .ifPresent(
            fact ->
                open.contradictions()
                    .forEach(
                        c ->
                            settled.put(
                                new Settled(fact, c.determinant()), c.values().getFirst().text())));
    refresh();
  }

  /** Rejects the fact that rows contradict. */
  void drop(Split.Open open) {
    factOf(open).ifPresent(fact -> accept(fact, false));
  }

  private Optional<Fact.Decides> factOf(Split.Open open) {
    Map<Integer, FieldId> columns = state.get().preview().map(Preview::columns).orElse(Map.of());
    for (Fact fact : accepted) {
      if (fact instanceof Fact.Decides decides
          && of(List.of(fact), columns).decisions().contains(open.decision())) {
        return Optional.of(decides);
      }
    }
    return Optional.empty();
  }

  boolean isNatural(List<Integer> determinant) {
    return naturalKeys.contains(determinant);
  }

  /** Lets a determinant identify the rows of its table itself, or gives them a counter. */
  void identify(List<Integer> determinant, boolean naturally) {
    if (naturally ? naturalKeys.add(determinant) : naturalKeys.remove(determinant)) {
      refresh();
    }
  }

  boolean isKept(int column) {
    return !skipped.contains(column);
  }

  /** Keeps a column or leaves it out. */
  void keep(int column, boolean kept) {
    if (kept ? skipped.remove(column) : skipped.add(column)) {
      refresh();
    }
  }

  /** Determinants of the accepted facts, each of which gets a table. */
  List<List<Integer>> determinants() {
    var determinants = new LinkedHashSet<List<Integer>>();
    for (Fact fact : accepted) {
      switch (fact) {
        case Fact.Decides decides ->
            determinants.add(decides.determinant().places().boxed().toList());
        case Fact.IsLookup lookup -> determinants.add(List.of(lookup.column()));
        case Fact.Repeats repeats -> {}
        case Fact.HoldsSeveral several -> {}
        case Fact.SameThing same -> {}
      }
    }
    return List.copyOf(determinants);
  }

  boolean takesRows() {
    return withRows;
  }

  /** Takes the rows along when the tables are added as they are, or their definition only. */
  void takeRows(boolean wanted) {
    withRows = wanted;
  }

  long firstNumber() {
    return firstNumber;
  }

  /** Sets where generated keys of tables added as they are begin. */
  void numberFrom(long first) {
    firstNumber = first;
  }

  /** Adds the source's tables without splitting any, and gives the one on the bench. */
  void addAsIs(Consumer<TableId> done) {
    Import wanted = new Import(withRows, firstNumber);
    Draft draft = bench.draft();
    make(
        done,
        () -> {
          SourceImport imported = wanted.of(draft);
          return new Ready(tableOf(imported).table(), Prepared.of(imported.edit(), draft));
        });
  }

  /**
   * Works a change out and makes it, once: a second press while it is worked out changes nothing.
   */
  private void make(Consumer<TableId> done, Callable<Ready> work) {
    if (making || made().isPresent()) {
      return;
    }
    making = true;
    bench
        .runner()
        .start(
            Request.<Ready>of(
                    new Topic(this, "make"),
                    "Adding " + profiled.source().name(),
                    progress -> work.call(),
                    ready -> {
                      making = false;
                      apply(ready, done);
                    },
                    failure -> {
                      making = false;
                      bench.tell(failure);
                    })
                .whenStopped(() -> making = false));
  }

  /** The table this source became, while it is in the design. */
  Optional<TableId> made() {
    return made.filter(table -> bench.design().find(table).isPresent());
  }

  /** The design as it is, to say what is new in it. */
  Design designNow() {
    return bench.design();
  }

  /** Splits for good, as one change, and gives the split table. */
  void split(Consumer<TableId> done) {
    Chosen chosen = new Chosen();
    Draft draft = bench.draft();
    make(
        done,
        () -> {
          SourceImport imported = chosen.wanted.of(draft);
          Table table = tableOf(imported).table();
          Edit edit =
              Edit.all(
                  "split " + table.label(),
                  List.of(
                      imported.edit(),
                      new SplitTable(table.id(), table.label(), chosen.choices(imported))));
          return new Ready(table, Prepared.of(edit, draft));
        });
  }

  /** A change that is worked out. */
  private record Ready(Table table, Edit edit) {}

  private void apply(Ready ready, Consumer<TableId> done) {
    if (bench.apply(ready::edit)) {
      made = Optional.of(ready.table().id());
      bench.design().find(ready.table().id()).map(Table::id).ifPresent(done);
    }
  }

  /** Works the split out anew, unless facts are still being looked for. */
  void refresh() {
    if (searching || !isWhole()) {
      return;
    }
    Draft draft = bench.draft();
    Chosen chosen = new Chosen();
    bench
        .runner()
        .start(
            Request.of(
                new Topic(this, "preview"),
                "Splitting " + profiled.source().name(),
                progress -> preview(draft, chosen),
                preview ->
                    state.set(
                        new State(
                            facts(),
                            false,
                            found.complete(),
                            Optional.of(preview),
                            Optional.empty())),
                failure -> refuse(failure.message())));
  }

  private void refuse(String why) {
    state.set(
        new State(
            facts(), false, found.complete(), Optional.empty(), Optional.of(String.valueOf(why))));
  }

  private List<Fact> facts() {
    var facts = new java.util.ArrayList<Fact>(own);
    facts.addAll(found.facts());
    return facts;
  }

  private Preview preview(Draft draft, Chosen chosen) {
    SourceImport imported = chosen.wanted.of(draft);
    Draft with = imported.edit().apply(draft);
    SourceImport.Imported table = tableOf(imported);
    Split split = Split.of(with, table.table().id(), chosen.choices(imported));
    return new Preview(table.table(), table.columns(), split, split.after().orElse(with).design());
  }

  private SourceImport.Imported tableOf(SourceImport imported) {
    return imported.tables().get(place);
  }

  /** How the source is taken in, as it stood when this was made; usable on any thread. */
  private final class Import {
    private final ImportOptions options;

    Import(boolean rows, long first) {
      this.options =
          new ImportOptions(
              rows, first, profiled.source().label(), Map.of(place, Set.copyOf(skipped)));
    }

    SourceImport of(Draft draft) {
      return SourceImport.of(profiled, draft.design(), options);
    }
  }

  /** Everything chosen for a split, as it stood when this was made; usable on any thread. */
  private final class Chosen {
    private final Import wanted = new Import(true, 1);
    private final List<Fact> facts = List.copyOf(accepted);
    private final Map<Settled, String> values = new LinkedHashMap<>(settled);
    private final Set<List<Integer>> keys = Set.copyOf(naturalKeys);

    SplitChoices choices(SourceImport imported) {
      Map<Integer, FieldId> columns = tableOf(imported).columns();
      SplitChoices choices = of(facts, columns);
      for (var entry : values.entrySet()) {
        SplitChoices alone = of(List.of(entry.getKey().fact()), columns);
        if (!alone.decisions().isEmpty()) {
          choices =
              choices.settling(
                  new SplitChoices.Settlement(
                      alone.decisions().getFirst(),
                      entry.getKey().determinant(),
                      entry.getValue()));
        }
      }
      return choices.withNaturalKeys(
          keys.stream()
              .filter(columns.keySet()::containsAll)
              .map(key -> key.stream().map(columns::get).toList())
              .collect(Collectors.toSet()));
    }
  }

  private static SplitChoices of(List<Fact> facts, Map<Integer, FieldId> columns) {
    return SplitChoices.of(facts, column -> Optional.ofNullable(columns.get(column)));
  }
}
