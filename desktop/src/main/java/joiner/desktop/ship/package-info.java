/**
 * The stage Ship: script, shipment, verification. Start at {@link joiner.desktop.ship.ShipView}.
 */
@NullMarked
package joiner.desktop.ship;

import org.jspecify.annotations.NullMarked;
