/**
 * The drawn map of tables and relationships: layout, drawing, hit-testing. Start at {@link
 * joiner.desktop.map.MapView}. Knows no stage.
 */
@NullMarked
package joiner.desktop.map;

import org.jspecify.annotations.NullMarked;
