/**
 * The stage Connect: the map and the readings of relationships. Start at {@link
 * joiner.desktop.connect.ConnectView}.
 */
@NullMarked
package joiner.desktop.connect;

import org.jspecify.annotations.NullMarked;
