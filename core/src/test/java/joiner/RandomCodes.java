package joiner;

import java.util.ArrayList;
import java.util.List;
import java.util.random.RandomGenerator;
import joiner.model.Generator;
import joiner.shape.CheckDigit;
import joiner.shape.CodedNumber;
import joiner.shape.CodedNumber.Part;
import joiner.shape.RandomCode;

/** Generated ways to generate values. */
public final class RandomCodes {
  private static final List<String> TEXTS = List.of("F-", "/", "é", "7", "K.*'", "\\", "[a]");
  private static final List<String> ALPHABETS =
      List.of(RandomCode.PLAIN, "01", "ab-^]\\", "äöü'\"");

  private RandomCodes() {}

  /** Any generator. */
  public static Generator generator(RandomGenerator random) {
    return switch (random.nextInt(3)) {
      case 0 -> new Generator.Uuid(random.nextBoolean());
      case 1 -> new Generator.Coded(number(random));
      default ->
          new Generator.Drawn(
              new RandomCode(
                  ALPHABETS.get(random.nextInt(ALPHABETS.size())), 1 + random.nextInt(12)));
    };
  }

  /** Any coded number. */
  public static CodedNumber number(RandomGenerator random) {
    var parts = new ArrayList<Part>();
    parts.add(new Part.Counter(1 + random.nextInt(6)));
    CodedNumber.Restart restart =
        CodedNumber.Restart.values()[random.nextInt(CodedNumber.Restart.values().length)];
    if (restart != CodedNumber.Restart.NEVER || random.nextBoolean()) {
      put(parts, new Part.Year(random.nextBoolean()), random);
    }
    if (restart == CodedNumber.Restart.MONTHLY || random.nextInt(3) == 0) {
      put(parts, new Part.Month(), random);
    }
    if (random.nextInt(4) == 0) {
      put(parts, new Part.Day(), random);
    }
    for (int i = random.nextInt(3); i > 0; i--) {
      put(parts, new Part.Fixed(TEXTS.get(random.nextInt(TEXTS.size()))), random);
    }
    if (random.nextBoolean()) {
      parts.add(new Part.Check(CheckDigit.values()[random.nextInt(CheckDigit.values().length)]));
    }
    return new CodedNumber(parts, restart);
  }

  private static void put(List<Part> parts, Part part, RandomGenerator random) {
    parts.add(random.nextInt(parts.size() + 1), part);
  }
}
