package joiner.format;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.model.FieldId;
import joiner.model.Listing;
import joiner.model.Listing.By;
import joiner.model.Table;

/** How the rows of a table are listed. */
final class ListingJson {
  private static final String LISTING = "listing";

  private ListingJson() {}

  static Listing read(Members more, Map<String, FieldId> ids) throws UnreadableFileException {
    Optional<Json> found = more.any(LISTING);
    if (found.isEmpty()) {
      return Listing.USUAL;
    }
    Members listing = more.inside(found.get(), "a listing");
    List<String> descending = listing.texts("descending");
    List<FieldId> down = TableJson.ids(listing, "descending", descending, ids);
    return new Listing(
        TableJson.ids(listing, "columns", listing.texts("columns"), ids),
        TableJson.ids(listing, "filters", listing.texts("filters"), ids),
        TableJson.ids(listing, "order", listing.texts("order"), ids).stream()
            .map(field -> new By(field, down.contains(field)))
            .toList());
  }

  static void write(Table table, Json.Obj more) {
    Listing listing = table.listing();
    if (listing.isUsual()) {
      return;
    }
    var json = new Json.Obj();
    put(json, "columns", table, listing.columns());
    put(json, "filters", table, listing.filters());
    put(json, "order", table, listing.order().stream().map(By::field).toList());
    put(
        json,
        "descending",
        table,
        listing.order().stream().filter(By::descending).map(By::field).toList());
    more.put(LISTING, json);
  }

  private static void put(Json.Obj json, String name, Table table, List<FieldId> fields) {
    if (!fields.isEmpty()) {
      json.put(name, Json.Arr.of(table.namesOf(fields)));
    }
  }
}
