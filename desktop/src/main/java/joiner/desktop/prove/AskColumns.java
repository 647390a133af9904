package joiner.desktop.prove;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import joiner.desktop.work.Workbench;
import joiner.joining.Asking;
import joiner.joining.Binding;
import joiner.joining.Bound;
import joiner.meaning.Draft;
import joiner.model.Question;
import joiner.model.Question.Counting;
import joiner.model.Question.Fold;

/** The columns of a question: what each can be made, and how they are counted and sorted. */
final class AskColumns {
  private final AskModel model;
  private final Workbench bench;

  AskColumns(AskModel model, Workbench bench) {
    this.model = model;
    this.bench = bench;
  }

  /** What can be done with a column. */
  sealed interface Deed {
    /** Shows it as that, or its bare value. */
    record As(Optional<Fold> fold) implements Deed {}

    /** Counts rows otherwise. */
    record Count(Counting counting) implements Deed {}

    record Sort(boolean descending) implements Deed {}

    record Unsort() implements Deed {}

    record Move(int by) implements Deed {}

    record Remove() implements Deed {}
  }

  /** What can be done with a column now. */
  List<Deed> deeds(int column) {
    var deeds = new ArrayList<Deed>();
    Optional<Question.Order> order =
        model.question().order().stream().filter(o -> o.column() == column).findFirst();
    if (order.filter(o -> !o.descending()).isEmpty()) {
      deeds.add(new Deed.Sort(false));
    }
    if (order.filter(Question.Order::descending).isEmpty()) {
      deeds.add(new Deed.Sort(true));
    }
    order.ifPresent(o -> deeds.add(new Deed.Unsort()));
    switch (model.question().columns().get(column)) {
      case Question.Shown shown -> {
        if (roleOf(column).isPresent()) {
          deeds.addAll(folds(column));
        }
      }
      case Question.Folded folded -> {
        if (folded.of().isPresent()) {
          deeds.add(new Deed.As(Optional.empty()));
          deeds.addAll(folds(column));
        }
        deeds.addAll(countings(column, folded));
      }
    }
    if (column > 0) {
      deeds.add(new Deed.Move(-1));
    }
    if (column < model.question().columns().size() - 1) {
      deeds.add(new Deed.Move(1));
    }
    deeds.add(new Deed.Remove());
    return deeds;
  }

  private List<Deed> folds(int column) {
    boolean[] now = new boolean[Fold.values().length];
    if (model.question().columns().get(column) instanceof Question.Folded folded) {
      now[folded.fold().ordinal()] = true;
    }
    return Arrays.stream(Fold.values())
        .filter(fold -> !now[fold.ordinal()] && isSound(folded(column, fold)))
        .<Deed>map(fold -> new Deed.As(Optional.of(fold)))
        .toList();
  }

  private List<Deed> countings(int column, Question.Folded folded) {
    List<Counting> others = new ArrayList<>(List.of(Counting.AS_JOINED, Counting.ONCE));
    model
        .question()
        .role(folded.role())
        .link()
        .filter(Question.Link::down)
        .ifPresent(link -> others.add(new Counting.Per(link.from())));
    return others.stream()
        .filter(counting -> !counting.equals(folded.counting()))
        .filter(c -> folded.fold().hangsOnRepetition() || c instanceof Counting.Per)
        .filter(c -> isSound(with(column, folded.withCounting(c))))
        .<Deed>map(Deed.Count::new)
        .toList();
  }

  private boolean isSound(Question question) {
    Draft draft = model.state().draft();
    return Binding.of(draft.design(), draft.meaning(), question) instanceof Binding.Result.Sound;
  }

  /** The one role a value is of. */
  private Optional<String> roleOf(int column) {
    return model
        .state()
        .bound()
        .filter(bound -> bound.columns().get(column) instanceof Bound.Shown)
        .flatMap(bound -> bound.roleOf(column));
  }

  private Question with(int column, Question.Column other) {
    var columns = new ArrayList<>(model.question().columns());
    columns.set(column, other);
    return model.question().withColumns(columns);
  }

  private Question folded(int column, Fold fold) {
    return switch (model.question().columns().get(column)) {
      case Question.Shown shown ->
          with(
              column,
              new Question.Folded(
                  label(fold, bare(shown.label())),
                  fold,
                  roleOf(column).orElse(""),
                  Optional.of(shown.of()),
                  Counting.AS_JOINED));
      case Question.Folded folded ->
          with(
              column,
              new Question.Folded(
                  label(fold, bare(folded.label())),
                  fold,
                  folded.role(),
                  folded.of(),
                  folded.counting()));
    };
  }

  private static String label(Fold fold, String of) {
    return Asking.words(fold) + " " + of;
  }

  /** A label without the words of a fold. */
  private static String bare(String label) {
    for (Fold fold : Fold.values()) {
      String before = label(fold, "");
      if (label.startsWith(before)) {
        return label.substring(before.length());
      }
    }
    return label;
  }

  /** Does something with a column. */
  void make(int column, Deed deed) {
    switch (deed) {
      case Deed.As(Optional<Fold> fold) -> {
        if (fold.isPresent()) {
          model.ask(folded(column, fold.get()));
        } else if (model.question().columns().get(column) instanceof Question.Folded folded) {
          model.ask(
              with(column, new Question.Shown(bare(folded.label()), folded.of().orElseThrow())));
        }
      }
      case Deed.Count(Counting counting) -> count(column, counting);
      case Deed.Sort(boolean descending) -> sort(column, Optional.of(descending));
      case Deed.Unsort unsort -> sort(column, Optional.empty());
      case Deed.Move(int by) -> move(column, by);
      case Deed.Remove remove -> model.ask(model.asking().without(model.question(), column));
    }
  }

  /** Counts the rows of a column in that way. */
  void count(int column, Counting counting) {
    if (model.question().columns().get(column) instanceof Question.Folded folded) {
      model.ask(with(column, folded.withCounting(counting)));
    }
  }

  /** Counts each row of some columns once. */
  void countOnce(List<Integer> some) {
    var columns = new ArrayList<>(model.question().columns());
    for (int column : some) {
      if (columns.get(column) instanceof Question.Folded folded) {
        columns.set(column, folded.withCounting(Counting.ONCE));
      }
    }
    model.ask(model.question().withColumns(columns));
  }

  private void sort(int column, Optional<Boolean> descending) {
    var order = new ArrayList<>(model.question().order());
    order.removeIf(o -> o.column() == column);
    descending.ifPresent(down -> order.addFirst(new Question.Order(column, down)));
    model.ask(model.question().withOrder(order));
  }

  private void move(int column, int by) {
    var columns = new ArrayList<>(model.question().columns());
    int to = column + by;
    columns.add(to, columns.remove(column));
    List<Question.Order> order =
        model.question().order().stream()
            .map(
                o ->
                    o.column() == column
                        ? new Question.Order(to, o.descending())
                        : o.column() == to ? new Question.Order(column, o.descending()) : o)
            .toList();
    model.ask(model.question().withColumns(columns).withOrder(order));
  }

  /** Calls a column otherwise. */
  void rename(int column, String label) {
    if (!label.isBlank()) {
      model.ask(model.asking().renamed(model.question(), column, label.strip()));
    }
  }
}
