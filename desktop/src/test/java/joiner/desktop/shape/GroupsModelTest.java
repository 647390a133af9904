package joiner.desktop.shape;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import joiner.Pottery;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.TestBench;
import joiner.edit.CompoundFields;
import joiner.model.Field;
import joiner.model.FieldGroup;
import joiner.model.FieldId;
import joiner.model.Table;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class GroupsModelTest {
  @TempDir private Path folder;
  private TestBench test;
  private GroupsModel model;

  @BeforeEach
  void turnToSuppliers() throws Exception {
    test = new TestBench(Pottery.demo(), folder);
    model = new GroupsModel(test.bench, Texts.beside(GroupsModel.class));
    test.choose("supplier");
  }

  @AfterEach
  void everythingIsDone() {
    test.finish();
  }

  private Table supplier() {
    return test.table("supplier");
  }

  private Field field(String id) {
    return supplier().field(new FieldId(id));
  }

  private FieldGroup group() {
    return supplier().groups().getFirst();
  }

  private List<Object> keys() {
    return model.lines(supplier()).stream().map(FieldLine::key).toList();
  }

  @Test
  void aGroupStandsUnderItsHeadingUntilItIsFolded() {
    model.together(supplier(), List.of(field("email"), field("website")));
    assertThat(keys())
        .containsExactly(
            new FieldId("supplier_id"),
            new FieldId("name"),
            group().id(),
            new FieldId("email"),
            new FieldId("website"),
            "");
    assertThat(model.kind(group())).isEqualTo("Group");
    model.fold(supplier(), group());
    assertThat(keys())
        .containsExactly(new FieldId("supplier_id"), new FieldId("name"), group().id(), "");
    assertThat(model.unfolded(supplier()).test(new FieldId("name"))).isFalse();
    assertThat(model.unfolded(supplier()).test(new FieldId("website"))).isTrue();
    assertThat(keys()).hasSize(6);
  }

  @Test
  void fieldsMoveWithinTheirGroupAndPastOthersAsAWhole() {
    model.together(supplier(), List.of(field("email"), field("website")));
    model.move(supplier(), field("website"), -1);
    model.move(supplier(), field("website"), -1);
    assertThat(supplier().namesOf(supplier().fieldIds()))
        .containsExactly("supplier_id", "name", "website", "email");
    model.move(supplier(), group(), -1);
    assertThat(supplier().namesOf(supplier().fieldIds()))
        .containsExactly("supplier_id", "website", "email", "name");
    model.move(supplier(), field("name"), -1);
    assertThat(supplier().namesOf(supplier().fieldIds()))
        .containsExactly("supplier_id", "name", "website", "email");
    model.move(supplier(), group(), 1);
    assertThat(supplier().namesOf(supplier().fieldIds())).endsWith("website", "email");
  }

  @Test
  void aGroupIsNamedAndDissolvedAndAFieldBecomesOne() {
    model.together(supplier(), List.of(field("email"), field("website")));
    model.rename(supplier(), group(), " Contact ");
    assertThat(group().label()).isEqualTo("Contact");
    model.rename(supplier(), group(), " ");
    assertThat(group().label()).isEqualTo("Contact");
    assertThat(GroupsModel.of(supplier(), List.of(new FieldId("website"), new FieldId("email"))))
        .isEqualTo(Optional.of(group()));
    assertThat(GroupsModel.of(supplier(), List.of(new FieldId("website")))).isEmpty();
    model.apart(supplier(), group());
    assertThat(supplier().groups()).isEmpty();
    CompoundFields name =
        CompoundFields.all().stream()
            .filter(kind -> kind.kind().equals("person name"))
            .findFirst()
            .orElseThrow();
    model.compound(supplier(), field("name"), name);
    assertThat(test.newest()).contains("entered as 3 fields");
    assertThat(model.kind(group())).isEqualTo("Person name");
    model.compound(supplier(), field("supplier_id"), name);
    assertThat(test.newest()).contains("has to stay one field");
  }
}
