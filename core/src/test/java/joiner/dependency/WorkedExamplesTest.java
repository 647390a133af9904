package joiner.dependency;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * Worked examples of textbooks, all from memory and with letters for their names: Ullman,
 * "Principles of Database and Knowledge-Base Systems" (1988); Elmasri and Navathe, "Fundamentals of
 * Database Systems"; Silberschatz, Korth and Sudarshan, "Database System Concepts"; Garcia-Molina,
 * Ullman and Widom, "Database Systems: The Complete Book"; Date, "An Introduction to Database
 * Systems"; Connolly and Begg, "Database Systems".
 */
class WorkedExamplesTest {
  private static String words(Scheme scheme, List<AttributeSet> sets) {
    return sets.stream()
        .map(set -> String.join("", scheme.names(set)))
        .map(WorkedExamplesTest::sorted)
        .sorted()
        .collect(Collectors.joining(" "));
  }

  private static String sorted(String letters) {
    return letters.chars().sorted().mapToObj(c -> "" + (char) c).collect(Collectors.joining());
  }

  private static String each(String words) {
    return Arrays.stream(words.split(" "))
        .map(WorkedExamplesTest::sorted)
        .sorted()
        .collect(Collectors.joining(" "));
  }

  /**
   * Keys, highest normal form, and the tables in third normal form where they are the only ones the
   * synthesis can give.
   */
  @ParameterizedTest(name = "{0}")
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '\u0001',
      value = {
        "Ullman, city street zip | CSZ | C,S->Z; Z->C | CS SZ | 3NF | CSZ",
        "Ullman, supplier address item price | SAIP | S->A; S,I->P | SI | 1NF | SA SIP",
        "Ullman, courses teachers hours rooms | CTHRSG | C->T; H,R->C; H,T->R; C,S->G; H,S->R | HS"
            + " | 2NF | CT HRC HTR CSG HSR",
        "Ullman, a cover with eight members | ABCDEG | A,B->C; C->A; B,C->D; A,C,D->B; D->E,G;"
            + " B,E->C; C,G->B,D; C,E->A,G | AB BC BD BE CD CE CG | 3NF | -",
        "Elmasri, employees on projects | SPHENL | S,P->H; S->E; P->N,L | SP | 1NF | SPH SE PNL",
        "Elmasri, employees of departments | SEBADNM | S->E,B,A,D; D->N,M | S | 2NF | SEBAD DNM",
        "Elmasri, lots | PCLART | P->C,L,A,R,T; C,L->P,A,R,T; C->T; A->R | P CL | 1NF | -",
        "Elmasri, who teaches what | SCI | S,C->I; I->C | SC SI | 3NF | SCI",
        "Silberschatz, six attributes | ABCGHI | A->B,C; C,G->H,I; B->H | AG | 1NF | ABC CGHI BH"
            + " AG",
        "Silberschatz, four keys | ABCDE | A->B,C; C,D->E; B->D; E->A | A BC CD E | 3NF | ABC CDE"
            + " BD AE",
        "Silberschatz, a canonical cover | ABC | A->B,C; B->C; A->B; A,B->C | A | 2NF | AB BC",
        "Garcia-Molina, films and stars | TYLGSN | T,Y->L,G,S | TYN | 1NF | TYLGS TYN",
        "Garcia-Molina, films and studios | TYLGSA | T,Y->L,G,S; S->A | TY | 2NF | TYLGS SA",
        "Garcia-Molina, bookings of theatres | THC | H->C; T,C->H | TH TC | 3NF | THC",
        "Garcia-Molina, exercise a | ABCD | A,B->C; C->D; D->A | AB BC BD | 3NF | ABC CD AD",
        "Garcia-Molina, exercise b | ABCD | B->C; B->D | AB | 1NF | BCD AB",
        "Garcia-Molina, exercise c | ABCD | A,B->C; B,C->D; C,D->A; A,D->B | AB BC CD AD | BCNF |"
            + " ABC BCD ACD ABD",
        "Garcia-Molina, exercise d | ABCD | A->B; B->C; C->D; D->A | A B C D | BCNF | AB BC CD AD",
        "Garcia-Molina, exercise e | ABCDE | A,B->C; D,E->C; B->D | ABE | 1NF | ABC CDE BD ABE",
        "Garcia-Molina, exercise f | ABCDE | A,B->C; C->D; D->B; D->E | AB AC AD | 1NF | ABC CD"
            + " BDE",
        "Date, suppliers and cities | SCT | S->C; C->T | S | 2NF | SC CT",
        "Date, two names of a supplier | SNPQ | S->N; N->S; S,P->Q; N,P->Q | SP NP | 3NF | -",
        "Date, subjects and teachers | SJT | S,J->T; T->J | SJ ST | 3NF | SJT",
        "Date, places in an examination | SJP | S,J->P; J,P->S | SJ JP | BCNF | SJP",
        "Connolly, inspections | PDTACSNR | P,D->T,C,S,N,R; P->A; S->N; S,D->R; R,D,T->P,A,C,S,N;"
            + " S,D,T->P,A,C | DP DRT DST | 1NF | -"
      })
  void theExampleComesOutAsInTheBook(
      String book, String letters, String given, String keys, String form, String tables) {
    Scheme scheme = SchemeText.read(String.join(",", letters.split("")), given);
    CandidateKeys found = scheme.candidateKeys(() -> false);
    assertThat(words(scheme, found.keys())).as("keys, %s", book).isEqualTo(each(keys));
    assertThat(scheme.normalForm(scheme.violations(found)).words()).isEqualTo(form);
    Decomposition third = scheme.synthesis(found);
    if (!tables.equals("-")) {
      assertThat(words(scheme, third.parts())).as("tables, %s", book).isEqualTo(each(tables));
    }
    assertThat(third.lossless()).isTrue();
    assertThat(third.lost()).isEmpty();
    var cover = new Scheme(scheme.attributes(), scheme.minimalCover());
    assertThat(scheme.dependencies()).allMatch(cover::implies);
    assertThat(cover.dependencies()).allMatch(scheme::implies);
  }

  /** Fourth normal form, with the multivalued dependencies of the books (from memory). */
  @ParameterizedTest(name = "{0}")
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '\u0001',
      value = {
        "Fagin, employees skills languages | ESL | E->>S | ESL | ES EL",
        "Date, courses teachers texts | CTX | C->>T | CTX | CT CX",
        "Garcia-Molina, stars streets films | NSCTY | N->>S,C | NSCTY | NSC NTY",
        "Ullman, courses with rooms and students | CTHRSG | C->T; H,R->C; H,T->R; C,S->G; H,S->R;"
            + " C->>H,R | HS | CT CHR CSG"
      })
  void multivaluedDependenciesAreSplitOff(
      String book, String letters, String given, String keys, String tables) {
    Scheme scheme = SchemeText.read(String.join(",", letters.split("")), given);
    var fourth = new FourthNormalForm(scheme, SchemeText.multivalued(scheme, given));
    assertThat(words(scheme, scheme.candidateKeys(() -> false).keys())).isEqualTo(each(keys));
    assertThat(fourth.violations()).extracting(Violation::form).contains(NormalForm.FOURTH);
    assertThat(words(scheme, fourth.decomposition().parts())).as(book).isEqualTo(each(tables));
  }
}
