/**
 * Pictures of tables and relationships: where everything stands, and how it is drawn, on any
 * surface. Start at {@link joiner.map.MapLayout} and {@link joiner.map.MapDrawing}. Knows no
 * window.
 */
@NullMarked
package joiner.map;

import org.jspecify.annotations.NullMarked;
