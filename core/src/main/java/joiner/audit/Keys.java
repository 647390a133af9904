package joiner.audit;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.IntConsumer;
import java.util.stream.IntStream;

/**
 * The keys of a table in some fields: in memory as long as there is room, then in files. Numbers
 * and others are kept apart; no key is both.
 */
final class Keys implements AutoCloseable {
  private final Memory memory;
  private final Optional<LongForm> form;
  private final Spilled spilled = new Spilled();
  private NumberKeys numbers = new NumberKeys();
  private ByteKeys others = new ByteKeys();
  private boolean inFiles;
  private boolean complete;

  Keys(Memory memory, Optional<LongForm> form) {
    this.memory = memory;
    this.form = form;
    if (!memory.take(bytes())) {
      inFiles = true;
    }
  }

  /** How keys are numbers here, if they are. */
  Optional<LongForm> form() {
    return form;
  }

  /** All keys of the table were put in. */
  void complete() {
    complete = true;
  }

  /** Whether {@link #has} tells for sure. */
  boolean isKnown() {
    return complete && !inFiles;
  }

  /** Whether keys are in files, so that they are only told part by part. */
  boolean isInFiles() {
    return inFiles;
  }

  /**
   * Puts the key that was read last in.
   *
   * @return the row that put it in before, or {@link NumberKeys#NEW}, also where that is not known
   *     yet
   */
  int put(KeyReader key, int row) {
    if (!inFiles) {
      long growth =
          key.isNumber() ? numbers.growth(key.number()) : others.growth(key.asBytes().length());
      if (growth == 0) {
        return putIn(key, row);
      }
      if (memory.take(growth)) {
        long before = bytes();
        int known = putIn(key, row);
        memory.giveBack(growth - (bytes() - before)); // A table that grew gave its old room back.
        return known;
      }
      intoFiles();
    }
    KeyForm bytes = key.asBytes();
    spilled.write(bytes.bytes(), bytes.length(), row);
    return NumberKeys.NEW;
  }

  private int putIn(KeyReader key, int row) {
    return key.isNumber()
        ? numbers.put(key.number(), row)
        : others.put(key.asBytes().bytes(), key.asBytes().length(), row);
  }

  private long bytes() {
    return numbers.bytes() + others.bytes();
  }

  private void intoFiles() {
    var bytes = new KeyForm(List.of());
    numbers.forEach(
        (number, row) -> {
          bytes.set(form.orElseThrow(), number);
          spilled.write(bytes.bytes(), bytes.length(), row);
        });
    others.forEach((key, row) -> spilled.write(key, key.length, row));
    memory.giveBack(bytes());
    numbers = new NumberKeys();
    others = new ByteKeys();
    inFiles = true;
  }

  /** Whether the key that was read last is among those put in. */
  boolean has(KeyReader key) {
    return key.isNumber()
        ? numbers.has(key.number())
        : others.has(key.asBytes().bytes(), key.asBytes().length());
  }

  /** Tells which of some keys, none of them numbers, are not among those put in. */
  void forEachMissing(AskedKeys asked, IntConsumer missing) {
    others.forEachMissing(asked, missing);
  }

  /** Whether a key is among those put in. */
  boolean has(byte[] key) {
    return isNumber(key)
        ? numbers.has(KeyForm.number(key, form.orElseThrow()))
        : others.has(key, key.length);
  }

  private boolean isNumber(byte[] key) {
    return form.isPresent() && KeyForm.isNumber(key, form.get());
  }

  /** All keys that are in memory and no numbers, in the order of their rows. */
  void forEachOther(ByteKeys.Each each) {
    others.forEach(each);
  }

  int otherCount() {
    return others.size();
  }

  /**
   * Shows each key that was put in again, with its row and the row before; those in files part by
   * part, in the order of their rows within each.
   */
  void forEachRepeated(Repeated repeated) {
    for (int part = 0; part < Spilled.PARTS && inFiles; part++) {
      var keys = new ByteKeys();
      spilled.forEach(
          part,
          (key, row) -> {
            int before = keys.put(key, key.length, row);
            if (before != NumberKeys.NEW) {
              repeated.key(key, row, before);
            }
          });
    }
  }

  /** A key that was put in before. */
  interface Repeated {
    void key(byte[] key, int row, int before);
  }

  /** Shows those of some keys that were not put in; nothing is put in any more. */
  void forEachMissing(Spilled asked, ByteKeys.Each missing) {
    IntStream.range(0, Spilled.PARTS)
        .filter(part -> asked.size() > 0)
        .forEach(part -> missing(part, asked, missing));
  }

  private void missing(int part, Spilled asked, ByteKeys.Each missing) {
    if (!inFiles) {
      asked.forEach(
          part,
          (key, row) -> {
            if (!has(key)) {
              missing.key(key, row);
            }
          });
      return;
    }
    var there = new ByteKeys();
    spilled.forEach(part, (key, row) -> there.put(key, key.length, row));
    asked.forEach(
        part,
        (key, row) -> {
          if (!there.has(key, key.length)) {
            missing.key(Arrays.copyOf(key, key.length), row);
          }
        });
  }

  @Override
  public void close() {
    memory.giveBack(inFiles ? 0 : bytes());
    spilled.close();
  }
}
