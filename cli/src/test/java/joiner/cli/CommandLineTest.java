package joiner.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParser;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import joiner.Pottery;
import joiner.edit.ChangeField;
import joiner.edit.ChangeTable;
import joiner.format.DesignFolder;
import joiner.meaning.Draft;
import joiner.model.FieldType;
import joiner.model.KnownFact;
import joiner.model.Noun;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class CommandLineTest {
  @TempDir private Path folder;

  private record Outcome(int code, String out, String err) {
    Map<?, ?> json() throws IOException {
      try (JsonParser parser = new JsonFactory().createParser(out)) {
        parser.nextToken();
        Map<?, ?> document = (Map<?, ?>) value(parser);
        assertThat(parser.nextToken()).as("one document and nothing else").isNull();
        return document;
      }
    }

    private static Object value(JsonParser parser) throws IOException {
      return switch (parser.currentToken()) {
        case START_OBJECT -> {
          Map<String, Object> object = new LinkedHashMap<>();
          while (parser.nextToken() != com.fasterxml.jackson.core.JsonToken.END_OBJECT) {
            String name = parser.currentName();
            parser.nextToken();
            object.put(name, value(parser));
          }
          yield object;
        }
        case START_ARRAY -> {
          List<Object> list = new ArrayList<>();
          while (parser.nextToken() != com.fasterxml.jackson.core.JsonToken.END_ARRAY) {
            list.add(value(parser));
          }
          yield list;
        }
        case VALUE_NUMBER_INT -> parser.getIntValue();
        case VALUE_TRUE -> true;
        case VALUE_FALSE -> false;
        case VALUE_NULL -> "null";
        default -> parser.getText();
      };
    }
  }

  private static Outcome run(String... arguments) {
    var out = new StringWriter();
    var err = new StringWriter();
    int code = Main.run(new PrintWriter(out, true), new PrintWriter(err, true), arguments);
    return new Outcome(code, out.toString(), err.toString());
  }

  private static String demo() {
    return Pottery.folder("saltmarsh-pottery").toString();
  }

  private static String broken() {
    return Pottery.folder("saltmarsh-pottery-broken").toString();
  }

  @Test
  void checkSaysFineOrErrorsByItsExitCode() throws IOException {
    assertThat(run("check", demo()).code()).isZero();
    Outcome outcome = run("check", broken() + "/datapackage.json", "--json");
    assertThat(outcome.code()).isEqualTo(1);
    assertThat(((Map<?, ?>) outcome.json().get("counts")).get("error")).isEqualTo(5);
    assertThat((Map<?, ?>) ((List<?>) outcome.json().get("findings")).getFirst())
        .extracting(
            first -> first.keySet().toString(),
            first -> first.get("table"),
            first -> first.get("field"),
            first -> first.get("severity"))
        .containsExactly("[id, severity, table, field, message]", "firing", "kiln_id", "error");
  }

  @Test
  void rulesSayWhetherRowsCanPassAndFailAndShowSome() throws IOException {
    Outcome fine = run("rules", demo(), "--json");
    assertThat(fine.code()).isZero();
    Map<?, ?> last = (Map<?, ?>) ((List<?>) fine.json().get("rules")).getLast();
    assertThat(last.keySet().toString())
        .isEqualTo("[table, rule, verdict, by, passes, fails, notes, kept]");
    assertThat(last.get("verdict")).isEqualTo("fine");
    assertThat(last.get("fails").toString()).contains("stage=fired");
    assertThat(((Map<?, ?>) last.get("kept")).get("postgresql")).isEqualTo("check");
    Path design = folder.resolve("ruled");
    Draft draft = Pottery.demo();
    Rule never = new Rule("tiny", "Tiny", "litres < 1", "");
    DesignFolder.save(
        draft.withDesign(
            draft.design().withTable(new TableId("kiln"), t -> t.withRuleAdded(never))),
        design);
    Outcome wrong = run("rules", design.toString());
    assertThat(wrong.code()).isEqualTo(1);
    assertThat(wrong.out()).contains("never  Kiln  Tiny", "13 rules");
  }

  @Test
  void askFindsTheJoinsAndSaysWhereRowsMultiply() throws IOException {
    Outcome asked = run("ask", demo(), "member.card_no, count(enrolment), sum(piece.grams)");
    assertThat(asked.code()).isZero();
    assertThat(asked.out())
        .contains("M-0001", "One line for each member.", "Rows multiply. An enrolment comes once");
    Outcome once =
        run(
            "ask",
            demo(),
            "member.card_no, count(enrolment)",
            "--where",
            "member.active = TRUE",
            "--keep",
            "enrolment",
            "--order",
            "2-",
            "--first",
            "3",
            "--once",
            "--json");
    assertThat(once.json().get("line")).isEqualTo("One line for each member.");
    assertThat((List<?>) once.json().get("lines")).hasSize(3);
    assertThat((List<?>) once.json().get("repeated")).isEmpty();
    assertThat(once.json().get("joins").toString()).contains("enrolment");
    assertThat(run("ask", demo(), "piece.mark", "--sql", "sqlite", "--first", "2").out())
        .contains("LIMIT 2;");
    assertThat(run("ask", demo(), "name").code()).isEqualTo(2);
    Outcome often =
        run(
            "ask",
            demo(),
            "kiln.name, count(firing)",
            "--where",
            "count(firing) > 9",
            "--where",
            "firing.peak_c > :heat",
            "--set",
            "heat=1000",
            "--sql",
            "postgresql");
    assertThat(often.out()).contains("> 1000").contains("WHERE a.f1 > 9");
    assertThat(run("ask", demo(), "kiln.name", "--where", "firing.peak_c > :heat").err())
        .contains("Fill in heat.");
    assertThat(run("ask", demo(), "kiln.name", "--set", "heat=1").err())
        .contains("no condition leaves :heat open");
    assertThat(run("ask", demo(), "piece.mark", "--order", "4").err()).contains("from 1 to 1");
    assertThat(run("ask", demo(), "piece.mark", "--keep", "glaze").err())
        .contains("joins no table of that name");
  }

  @Test
  void aKeptQuestionIsAskedOfALiveDatabase() throws IOException {
    String url = "jdbc:sqlite:" + folder.resolve("asked.db");
    assertThat(run("ship", demo(), "--url", url, "--rows", "all").code()).isZero();
    Outcome own = run("ask", demo(), "course_income", "--json");
    Outcome live = run("ask", demo(), "course_income", "--url", url, "--order", "1", "--json");
    assertThat((List<?>) live.json().get("lines")).hasSize(5);
    assertThat(own.json().get("line")).isEqualTo("One line for each course.");
    List<?> first = (List<?>) ((List<?>) live.json().get("lines")).getFirst();
    assertThat(first.subList(0, 3))
        .isEqualTo(((List<?>) ((List<?>) own.json().get("lines")).getFirst()).subList(0, 3));
    assertThat(run("ask", demo(), "member.card_no", "--url", "jdbc:sqlite:/nowhere/x.db").code())
        .isEqualTo(3);
  }

  @Test
  void auditNamesRowsFromOne() throws IOException {
    assertThat(run("audit", demo()).code()).isZero();
    Outcome outcome = run("audit", broken(), "--json");
    assertThat(outcome.code()).isEqualTo(1);
    assertThat(outcome.json().get("total")).isEqualTo(37);
    Map<?, ?> member = (Map<?, ?>) ((List<?>) outcome.json().get("tables")).get(1);
    assertThat(member.get("rows")).isEqualTo(40);
    assertThat((Map<?, ?>) ((List<?>) member.get("violations")).get(1))
        .isEqualTo(
            Map.of(
                "kind",
                "missing-required",
                "fields",
                List.of("email"),
                "constraint",
                "required email",
                "count",
                3,
                "rows",
                List.of(12, 19, 26),
                "message",
                "Rows 12, 19 and 26 lack E-mail, which is required."));
  }

  @Test
  void rowsThatContradictWhatIsKnownAreNamedButDoNotOffend() throws Exception {
    Draft demo = DesignFolder.open(Path.of(demo())).draft();
    Table firing = demo.design().tableNamed("firing").orElseThrow();
    var known =
        new KnownFact(
            List.of(firing.fieldNamed("cone_no").orElseThrow().id()),
            List.of(firing.fieldNamed("kiln_id").orElseThrow().id()),
            true);
    Path design = folder.resolve("known");
    DesignFolder.save(ChangeTable.know(firing, known).apply(demo), design);
    Outcome told = run("audit", design.toString());
    assertThat(told.out())
        .contains("firing  look  Cone decides Kiln, as somebody said, but rows ", " disagree.");
    assertThat(told.code()).as("no database refuses them").isZero();
    Map<?, ?> item =
        (Map<?, ?>)
            ((List<?>) run("audit", design.toString(), "--json").json().get("contradicted"))
                .getFirst();
    assertThat(item.get("table")).isEqualTo("firing");
    assertThat(item.get("by")).isEqualTo(List.of("cone_no"));
    assertThat(item.get("decide")).isEqualTo(List.of("kiln_id"));
    assertThat((List<?>) item.get("rows")).isNotEmpty();
    assertThat(run("check", design.toString()).out()).contains("In Firing, Cone decides Kiln");
  }

  @Test
  void rowsThatStayInTheirFileAreAuditedAndShipped() throws Exception {
    Path file =
        Files.writeString(
            folder.resolve("kilns.csv"), "no;name;since\n1;Ember;14.03.2019\n2;Ash;1.4.2021\n");
    String design = folder.resolve("kilns").toString();
    Outcome imported = run("import", file.toString(), "--link", "--out", design);
    assertThat(imported.out()).contains("added kiln with 2 rows");
    assertThat(Path.of(design, "data")).doesNotExist();
    assertThat(run("audit", design).out()).contains("0 offending rows in 2 rows");
    Outcome script = run("sql", design, "--dialect", "h2", "--rows", "all");
    assertThat(script.out()).doesNotContain("INSERT");
    assertThat(script.out() + script.err()).contains("2 rows of Kiln, which stay in kilns.csv");
    String url = "jdbc:h2:" + folder.resolve("kilns-db");
    assertThat(run("ship", design, "--url", url, "--rows", "all").code()).isZero();
    try (var connection = DriverManager.getConnection(url);
        var found = connection.createStatement().executeQuery("SELECT MAX(since) FROM kiln")) {
      assertThat(found.next()).isTrue();
      assertThat(found.getString(1)).isEqualTo("2021-04-01");
    }
    Files.writeString(file, "no;name;since\n1;Ember;14.03.2019\n1;Ash;soon\n");
    Outcome audit = run("audit", design);
    assertThat(audit.code()).isEqualTo(1);
    assertThat(audit.out()).contains("duplicate-key", "wrong-type", "2 offending rows in 2 rows");
    Files.delete(file);
    Outcome unread = run("audit", design, "--json");
    assertThat(unread.code()).isEqualTo(1);
    assertThat(unread.json().get("unread").toString()).contains("there is no such file");
    String other = "jdbc:h2:" + folder.resolve("kilns-other");
    assertThat(run("ship", design, "--url", other, "--rows", "all").err())
        .contains("there is no such file");
    assertThat(run("import", demo() + "/datapackage.json", "--link", "--out", design).err())
        .contains("only rows of delimited text can stay in their file");
  }

  @Test
  void auditTakesRowsFromAnotherFolder() {
    assertThat(run("audit", demo(), "--data", broken() + "/data").code()).isEqualTo(1);
    assertThat(run("audit", demo(), "--data", folder.resolve("none").toString()).code())
        .isEqualTo(2);
  }

  @Test
  void anAuditTellsWhichRowsItHolds() throws Exception {
    Draft demo = Pottery.demo();
    Table firing = demo.design().table(new TableId("firing"));
    var cool = new Rule("cool", "Not too hot", "peak_c < kiln_id.hottest_c - 900", "Too hot.");
    Path design = folder.resolve("cool");
    DesignFolder.save(ChangeTable.addRule(firing, cool).apply(demo), design);
    Outcome held = run("audit", design.toString(), "--data", design + "/data");
    assertThat(held.code()).isEqualTo(1);
    assertThat(held.out()).contains("firing  rule  ");
    assertThat(held.err()).contains("read kiln; its rows are held in memory");
    assertThat(run("audit", demo(), "--data", demo() + "/data").err())
        .contains("note: Other tables read firing; its rows are held in memory.");
  }

  @Test
  void sqlGoesToTheScreenOrAFile() throws IOException {
    Outcome outcome = run("sql", demo(), "--dialect", "postgresql", "--rows", "none");
    assertThat(outcome.code()).isZero();
    assertThat(outcome.out()).contains("CREATE TABLE member (").doesNotContain("INSERT INTO cone");
    Path file = folder.resolve("x.sql");
    assertThat(run("sql", demo(), "--dialect", "sqlite", "--out", file.toString()).code()).isZero();
    assertThat(Files.readString(file))
        .contains("PRAGMA foreign_keys = ON;", "INSERT INTO cone", "COMMIT;")
        .doesNotContain("INSERT INTO member ");
    assertThat(run("sql", demo(), "--dialect", "other").code()).isEqualTo(2);
  }

  @Test
  void shipVerifiesWhatItMade() throws IOException {
    Outcome outcome =
        run(
            "ship",
            demo(),
            "--url",
            "jdbc:h2:" + folder.resolve("shipped"),
            "--rows",
            "all",
            "--json");
    assertThat(outcome.code()).isZero();
    assertThat(outcome.json())
        .isEqualTo(Map.of("statements", 94, "verified", true, "differences", List.of()));
  }

  @Test
  void shipOnTrialSendsNothing() {
    Path file = folder.resolve("trial.sqlite");
    assertThat(run("ship", demo(), "--url", "jdbc:sqlite:" + file, "--dry-run").code()).isZero();
    assertThat(file).doesNotExist();
  }

  @Test
  void aTargetThatRefusesGivesThree() {
    String url = "jdbc:sqlite:" + folder.resolve("twice.sqlite");
    assertThat(run("ship", demo(), "--url", url).code()).isZero();
    Outcome again = run("ship", demo(), "--url", url);
    assertThat(again.code()).isEqualTo(3);
    assertThat(again.err().lines()).hasSize(1);
  }

  @Test
  void aBrokenDesignIsNotShipped() {
    Outcome outcome = run("ship", broken(), "--url", "jdbc:sqlite:" + folder.resolve("b.sqlite"));
    assertThat(outcome.code()).isEqualTo(1);
    assertThat(outcome.err()).contains("5 errors");
  }

  @Test
  void importMakesADesignAndAddsToIt() throws IOException {
    Path csv = folder.resolve("Kiln log.csv");
    Files.writeString(csv, "Kiln;Peak °C;Cone\nBig Tom;1222;06\nEmber;1063;04\n");
    Path design = folder.resolve("studio");
    Outcome outcome = run("import", csv.toString(), "--out", design.toString(), "--json");
    assertThat(outcome.code()).isZero();
    assertThat(outcome.out()).contains("\"kiln_log\"", "peak_c");
    assertThat(run("import", csv.toString(), "--out", design.toString()).out())
        .contains("kiln_log_2");
    assertThat(run("check", design.toString()).code()).as("each has a key").isZero();
  }

  private Path log() throws IOException {
    return Files.writeString(
        folder.resolve("log.csv"),
        """
        No,Member,E-mail,Cone,Peak
        1,Mara,m@x,04,1063
        2,Odo,o@x,6,1222
        3,Mara,m@x,6,1222
        4,Odo,o@x,04,1063
        5,Mara,m@x,6,1222
        6,Odo,o@x,6,1222
        """);
  }

  @Test
  void profileSaysWhatIsInEachColumn() throws IOException {
    Outcome outcome = run("profile", log().toString(), "--json");
    assertThat(outcome.code()).isZero();
    assertThat(outcome.err()).isEmpty();
    assertThat(outcome.out().replaceAll("\\s+", " "))
        .contains(
            "\"source\" : \"log.csv\", \"rows\" : 6",
            "\"name\" : \"Cone\", \"field\" : \"cone\", \"type\" : \"text\"",
            "\"distinct\" : 2, \"min\" : \"04\", \"max\" : \"6\"");
  }

  @Test
  void dependenciesAreTheMinimalOnesWithTheKeys() throws IOException {
    Outcome outcome = run("dependencies", log().toString(), "--json");
    assertThat(outcome.code()).isZero();
    String out = outcome.out().replaceAll("\\s+", " ");
    assertThat(out)
        .contains(
            "\"determinant\" : [ \"Member\" ], \"dependent\" : \"E-mail\", \"error\" : 0.0",
            "\"determinant\" : [ \"Cone\" ], \"dependent\" : \"Peak\"",
            "\"keys\" : [ [ \"No\" ] ]",
            "\"complete\" : true");
    assertThat(run("dependencies", log().toString(), "--max-error", "2").code()).isEqualTo(2);
  }

  @Test
  void inclusionsNameBothColumnsAndWhatIsMissing() throws IOException {
    Path members = Files.writeString(folder.resolve("members.csv"), "Name\nMara\nOdo\nTobin\n");
    String out =
        run("inclusions", log().toString(), members.toString(), "--json")
            .out()
            .replaceAll("\\s+", " ");
    assertThat(out)
        .contains(
            "\"from\" : \"log.Member\", \"in\" : \"members.Name\", \"rows\" : 6, \"missing\" : 0");
  }

  @Test
  void splitWritesASoundDesignWithAllRows() throws IOException {
    Path design = folder.resolve("split");
    Outcome outcome =
        run(
            "split",
            log().toString(),
            "--out",
            design.toString(),
            "--accept",
            "member.decides.e_mail,cone.decides.peak",
            "--json");
    assertThat(outcome.err()).isEmpty();
    assertThat(outcome.code()).isZero();
    assertThat(outcome.out()).contains("\"rejoined\" : true", "\"lossless\" : true");
    assertThat(run("check", design.toString()).code()).isZero();
    assertThat(run("audit", design.toString()).code()).isZero();
    assertThat(Files.readString(design.resolve("data/member.csv"))).contains("Mara", "Odo");
    assertThat(run("split", log().toString(), "--out", "x", "--accept", "none").err())
        .contains("member.decides.e_mail");
  }

  @Test
  void splitMergesNothingByItself() throws IOException {
    Path log =
        Files.writeString(
            folder.resolve("contradiction.csv"),
            "No,Member,E-mail\n"
                + "1,Odo,o@x\n2,Odo,o@x\n3,Odo,q@x\n4,Mara,m@x\n5,Mara,m@x\n6,Mara,m@x\n"
                + java.util.stream.IntStream.range(7, 40)
                    .mapToObj(i -> i + ",Tobin,t@x\n")
                    .collect(java.util.stream.Collectors.joining()));
    String[] named = {
      "split",
      log.toString(),
      "--out",
      folder.resolve("c").toString(),
      "--accept",
      "member.decides.e_mail"
    };
    Outcome refused = run(named);
    assertThat(refused.code()).isEqualTo(1);
    assertThat(refused.err()).contains("Odo has o@x (2 rows) and q@x (1 rows)");
    assertThat(folder.resolve("c")).doesNotExist();
    String[] settled = java.util.Arrays.copyOf(named, named.length + 2);
    settled[named.length] = "--settle";
    settled[named.length + 1] = "majority";
    assertThat(run(settled).code()).isZero();
  }

  @Test
  void whatIsWrongInAFileIsToldAndTheRestIsRead() throws IOException {
    Path ragged = Files.writeString(folder.resolve("ragged.csv"), "A,B\n1,2\n3\n4,5\n");
    Outcome outcome = run("dependencies", ragged.toString());
    assertThat(outcome.err()).contains("ragged.csv, line 3", "Add the missing separators");
    assertThat(outcome.out()).contains("3 rows");
  }

  @Test
  void badInputGivesTwoAndOneClearLine() {
    for (String[] arguments :
        List.of(
            new String[] {"check", folder.resolve("none").toString()},
            new String[] {"chekc"},
            new String[] {"check"},
            new String[] {
              "import",
              folder.resolve("none.csv").toString(),
              "--out",
              folder.resolve("d").toString()
            })) {
      Outcome outcome = run(arguments);
      assertThat(outcome.code()).as(String.join(" ", arguments)).isEqualTo(2);
      assertThat(outcome.err().lines()).hasSize(1);
    }
  }

  @Test
  void normalizeAnswersWithoutAnyData() throws IOException {
    Outcome outcome =
        run(
            "normalize",
            "--attributes",
            "A,B,C",
            "--dependencies",
            "A,B->C; C->A",
            "--to",
            "bcnf",
            "--json");
    assertThat(outcome.code()).isZero();
    assertThat(outcome.json().get("normalForm")).isEqualTo("3NF");
    assertThat(outcome.json().get("candidateKeys"))
        .isEqualTo(List.of(List.of("A", "B"), List.of("B", "C")));
    assertThat(outcome.json().get("lost"))
        .isEqualTo(List.of(Map.of("from", List.of("A", "B"), "to", List.of("C"))));
    assertThat(run("normalize", "--attributes", "A", "--dependencies", "A->X").code()).isEqualTo(2);
  }

  @Test
  void everyCommandDocumentsItself() {
    for (String command :
        List.of(
            "check",
            "audit",
            "sql",
            "ship",
            "import",
            "profile",
            "dependencies",
            "inclusions",
            "split",
            "normalize",
            "version")) {
      assertThat(run(command, "--help").out()).contains("Usage: joiner " + command);
    }
    assertThat(run("version").out()).startsWith("Joiner ");
  }

  @Test
  void impactTellsWhatARemovalTakesAlongAndChangesNothing() throws IOException {
    Outcome outcome = run("impact", demo(), "--remove", "firing.ended_at", "--json");
    assertThat(outcome.code()).isZero();
    List<?> changes = (List<?>) outcome.json().get("changes");
    assertThat(changes)
        .extracting(change -> String.valueOf(((Map<?, ?>) change).get("kind")))
        .contains("field-removed", "formula-broken");
    assertThat(changes)
        .extracting(change -> String.valueOf(((Map<?, ?>) change).get("risk")))
        .contains("loses", "refuses");
    assertThat(run("impact", demo(), "--remove", "kiln").out())
        .contains("loses    The table Kiln is removed, with ");
    assertThat(run("impact", demo(), "--remove", "kiln.nothing"))
        .satisfies(wrong -> assertThat(wrong.code()).isEqualTo(2))
        .satisfies(wrong -> assertThat(wrong.err()).contains("kiln.nothing").contains("glaze"));
  }

  @Test
  void compareSaysByItsExitCodeWhetherTwoDesignsSayTheSame() throws IOException {
    Outcome same = run("compare", demo(), demo(), "--json");
    assertThat(same.code()).isZero();
    assertThat((List<?>) same.json().get("changes")).isEmpty();
    Outcome different = run("compare", demo(), broken(), "--json");
    assertThat(different.code()).isEqualTo(1);
    Map<?, ?> first = (Map<?, ?>) ((List<?>) different.json().get("changes")).getFirst();
    assertThat(first.keySet().stream().map(String::valueOf))
        .containsExactly("kind", "table", "field", "risk", "message");
    assertThat(run("compare", demo(), "nowhere").code()).isEqualTo(2);
  }

  @Test
  void aDatabaseIsReadIntoADesignAndComparedWithOne() throws IOException {
    String url = "jdbc:sqlite:" + folder.resolve("studio.sqlite");
    assertThat(run("ship", demo(), "--url", url, "--rows", "all").code()).isZero();
    assertThat(run("compare", demo(), url, "--json"))
        .satisfies(same -> assertThat(same.out()).contains("\"changes\" : [ ]"))
        .satisfies(same -> assertThat(same.code()).isZero());
    assertThat(run("compare", url, demo()).code()).isZero();
    assertThat(run("compare", url, url).code()).isZero();
    String design = folder.resolve("read back").toString();
    Outcome read = run("import", url, "--out", design, "--json");
    assertThat(read.code()).isZero();
    assertThat((List<?>) read.json().get("tables")).hasSize(16);
    assertThat(run("audit", design).code()).isZero();
    assertThat(run("import", url, "--out", design))
        .satisfies(again -> assertThat(again.code()).isEqualTo(2))
        .satisfies(again -> assertThat(again.err()).contains("There is a table"));
    String few = folder.resolve("few").toString();
    assertThat(run("import", url, "--out", few, "--rows", "2").err()).contains("the first 2 were");
    assertThat(run("import", "jdbc:sqlite:" + folder.resolve("none"), "--out", few).code())
        .isEqualTo(3);
  }

  /** The demo with longer names of glazes and no suppliers' phones, in a folder of its own. */
  private String changedDemo() throws IOException {
    Path changed = folder.resolve("changed");
    Draft draft = Pottery.demo();
    Table glaze = draft.design().table(new TableId("glaze"));
    Draft after =
        ChangeField.type(glaze, glaze.fieldNamed("name").orElseThrow(), new FieldType.Text(45))
            .apply(draft);
    Table kiln = after.design().table(new TableId("kiln"));
    Draft renamed =
        ChangeTable.rename(kiln, "oven", "Oven", new Noun("oven", "ovens")).apply(after);
    DesignFolder.save(renamed, changed);
    return changed.toString();
  }

  @Test
  void aDatabaseOfAnEarlierDesignIsChangedByAScript() throws Exception {
    String changed = changedDemo();
    Outcome script = run("sql", changed, "--since", demo(), "--dialect", "postgresql");
    assertThat(script.code()).isZero();
    assertThat(script.out())
        .contains("--   rewrites: Glaze · Name holds text of 45, before text of 30.")
        .contains("ALTER TABLE kiln RENAME TO oven;")
        .contains("ALTER COLUMN name TYPE varchar(45)")
        .doesNotContain("CREATE TABLE")
        .endsWith("COMMIT;\n");
    assertThat(run("sql", changed, "--since", demo()).code()).isEqualTo(2);
    assertThat(run("sql", changed).err()).contains("--dialect");
  }

  @Test
  void aDatabaseThatIsThereIsAskedWhatItHolds() throws Exception {
    String changed = changedDemo();
    String url = "jdbc:sqlite:" + folder.resolve("since.sqlite");
    assertThat(run("ship", demo(), "--url", url, "--rows", "all").code()).isZero();
    assertThat(run("sql", changed, "--since", url, "--dialect", "h2").err())
        .contains("The database is of SQLite; leave --dialect out.");
    Path script = folder.resolve("change.sql");
    assertThat(run("sql", changed, "--since", url, "--out", script.toString()).code()).isZero();
    try (Connection connection = DriverManager.getConnection(url);
        Statement statement = connection.createStatement()) {
      // Lines within a trigger are set in.
      for (String sql : Files.readString(script).split(";\n(?! |END)")) {
        statement.execute(sql);
      }
    }
    assertThat(run("compare", changed, url).code()).isZero();
    assertThat(run("audit", changed, "--url", url).code()).isZero();
    assertThat(run("sql", changed, "--since", url).out()).doesNotContain("CREATE TABLE oven");
  }

  @Test
  void aScriptOfSqlIsReadIntoADesignWithItsRows() throws IOException {
    Path script = folder.resolve("studio.sql");
    assertThat(
            run("sql", demo(), "--dialect", "mariadb", "--rows", "all", "--out", script.toString())
                .code())
        .isZero();
    String design = folder.resolve("from script").toString();
    Outcome read = run("import", script.toString(), "--out", design, "--json");
    assertThat(read.code()).isZero();
    assertThat((List<?>) read.json().get("tables")).hasSize(16);
    assertThat(run("audit", design).code()).isZero();
    Files.writeString(
        script, "CREATE VIEW v AS SELECT 1;\nCREATE TABLE t (a integer PRIMARY KEY);");
    Outcome told = run("import", script.toString(), "--out", design, "--dialect", "postgresql");
    assertThat(told.code()).isZero();
    assertThat(told.err()).contains("Line 1, not taken along: CREATE VIEW");
    assertThat(run("import", script.toString(), "--out", design, "--dialect", "x").code())
        .isEqualTo(2);
  }
}
