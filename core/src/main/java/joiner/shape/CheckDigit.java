package joiner.shape;

import java.util.List;
import java.util.stream.IntStream;

/**
 * Digits that follow from those before them, so that a slip of the hand is noticed. Each is a
 * weighted sum of the digits, which engines can compute as well.
 */
public enum CheckDigit {
  /** ISO/IEC 7812-1, annex B: one digit; finds one wrong digit and most neighbours changed over. */
  LUHN(1),
  /** ISO/IEC 7064, MOD 11-2: one digit or X; finds one wrong digit and any neighbours changed. */
  MOD_11_2(1),
  /** ISO/IEC 7064, MOD 97-10: two digits; finds nearly everything. */
  MOD_97_10(2);

  private static final int TEN = 10;
  private static final int ELEVEN = 11;
  private static final int NINETY_SEVEN = 97;

  private final int length;

  CheckDigit(int length) {
    this.length = length;
  }

  /** How many characters it has. */
  public int length() {
    return length;
  }

  /** The number by which the sum is divided. */
  public int modulus() {
    return switch (this) {
      case LUHN -> TEN;
      case MOD_11_2 -> ELEVEN;
      case MOD_97_10 -> NINETY_SEVEN;
    };
  }

  /**
   * What each digit counts.
   *
   * @param digits how many digits there are
   * @return for each of them, from the left, the weight; of {@link #LUHN} 2 where a digit is
   *     doubled and the digits of that are added up
   */
  public List<Integer> weights(int digits) {
    return IntStream.range(0, digits)
        .mapToObj(
            i ->
                switch (this) {
                  case LUHN -> (digits - i) % 2 == 1 ? 2 : 1;
                  case MOD_11_2 -> power(2, digits - i, ELEVEN);
                  case MOD_97_10 -> power(TEN, digits - i + 1, NINETY_SEVEN);
                })
        .toList();
  }

  private static int power(int base, int exponent, int modulus) {
    int power = 1;
    for (int i = 0; i < exponent; i++) {
      power = power * base % modulus;
    }
    return power;
  }

  /**
   * The check digits behind others.
   *
   * @param digits characters from 0 to 9
   */
  public String of(String digits) {
    List<Integer> weights = weights(digits.length());
    int sum = 0;
    for (int i = 0; i < digits.length(); i++) {
      int weighted = (digits.charAt(i) - '0') * weights.get(i);
      sum += this == LUHN ? weighted / TEN + weighted % TEN : weighted;
    }
    return switch (this) {
      case LUHN -> String.valueOf((TEN - sum % TEN) % TEN);
      case MOD_11_2 -> {
        int check = (ELEVEN + 1 - sum % ELEVEN) % ELEVEN;
        yield check == TEN ? "X" : String.valueOf(check);
      }
      case MOD_97_10 -> {
        int check = NINETY_SEVEN + 1 - sum % NINETY_SEVEN;
        yield (check < TEN ? "0" : "") + check;
      }
    };
  }

  /** The characters it may have, as a pattern. */
  String pattern() {
    return switch (this) {
      case LUHN -> "[0-9]";
      case MOD_11_2 -> "[0-9X]";
      case MOD_97_10 -> "[0-9]{2}";
    };
  }
}
