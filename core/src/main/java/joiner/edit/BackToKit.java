package joiner.edit;

import java.util.Optional;
import joiner.meaning.Draft;
import joiner.meaning.KitFields;
import joiner.model.Field;
import joiner.model.FieldGroup;
import joiner.model.Kit;
import joiner.model.KitUse;
import joiner.model.Table;
import joiner.model.TableId;

/** Brings one field of a table back to what its kit says. */
public record BackToKit(TableId table, Kit kit, Field field) implements Edit {
  @Override
  public String name() {
    return "bring " + field.label() + " back into step";
  }

  @Override
  public Draft apply(Draft draft) {
    return draft.withDesign(draft.design().withTable(table, this::inStep));
  }

  private Table inStep(Table now) {
    Optional<KitUse> use = DropKit.use(now, kit).flatMap(FieldGroup::use);
    Optional<Field> ofKit = use.flatMap(of -> of.ofKit(field.id())).flatMap(kit::find);
    return ofKit
        .map(of -> now.withField(field.id(), f -> KitFields.inTable(kit, of, now, use.get(), f)))
        .orElse(now);
  }
}
