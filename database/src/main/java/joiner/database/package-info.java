/**
 * Databases: shipping a design, reading a catalog back, comparing the two. Start at {@link
 * joiner.database.Shipment}. The only place that knows JDBC.
 */
@NullMarked
package joiner.database;

import org.jspecify.annotations.NullMarked;
