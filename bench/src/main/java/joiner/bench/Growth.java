package joiner.bench;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/**
 * Draws how time and memory grow with rows, both axes by powers of ten: lines of {@code label rows
 * seconds megabytes} come in, an SVG picture goes out. A label is {@code deed by whom}; what is not
 * by Joiner is dashed.
 */
public final class Growth {
  private static final int SIDE = 300;
  private static final int LEFT = 64;
  private static final int TOP = 34;
  private static final int GAP = 90;
  private static final List<String> INKS = List.of("#1d6b5b", "#a0641a", "#4f4a9c", "#9c3b32");

  private record Point(double rows, double seconds, double megabytes) {}

  private Growth() {}

  /** Reads the lines from standard input; the picture goes to the file named. */
  public static void main(String[] arguments) throws IOException {
    Map<String, List<Point>> lines = new LinkedHashMap<>();
    String input = new String(System.in.readAllBytes(), StandardCharsets.UTF_8);
    for (String line : input.lines().toList()) {
      String[] parts = line.split("\t");
      lines
          .computeIfAbsent(parts[0], label -> new ArrayList<>())
          .add(
              new Point(
                  Double.parseDouble(parts[1]),
                  Double.parseDouble(parts[2]),
                  Double.parseDouble(parts[3])));
    }
    Files.writeString(Path.of(arguments[0]), picture(lines));
  }

  private static String picture(Map<String, List<Point>> lines) {
    var svg = new StringBuilder();
    int width = 2 * (SIDE + GAP) + LEFT;
    int height = SIDE + TOP + 60 + 18 * lines.size();
    svg.append(
        String.format(
            Locale.ROOT,
            "<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 %d %d\" font-family=\"sans-serif\""
                + " font-size=\"12\">%n<rect width=\"100%%\" height=\"100%%\" fill=\"#fbfaf6\"/>%n",
            width,
            height));
    axes(svg, 0, "seconds", -2, 2);
    axes(svg, SIDE + GAP, "megabytes", 1, 4);
    var deeds = new ArrayList<String>();
    int i = 0;
    for (Map.Entry<String, List<Point>> line : lines.entrySet()) {
      String[] label = line.getKey().split(" by ");
      if (!deeds.contains(label[0])) {
        deeds.add(label[0]);
      }
      String ink = INKS.get(deeds.indexOf(label[0]) % INKS.size());
      boolean dashed = !label[label.length - 1].equals("Joiner");
      curves(svg, line.getValue(), ink, dashed);
      int y = TOP + SIDE + 48 + 18 * i++;
      String sample = String.format(Locale.ROOT, "%d,%d %d,%d", LEFT - 14, y, LEFT + 12, y);
      polyline(svg, sample, ink, dashed);
      text(svg, LEFT + 18, y + 4, "start", line.getKey());
    }
    return svg.append("</svg>\n").toString();
  }

  private static void curves(StringBuilder svg, List<Point> points, String ink, boolean dashed) {
    var seconds = new StringBuilder();
    var megabytes = new StringBuilder();
    for (Point point : points) {
      seconds.append(at(0, point.rows, point.seconds, -2, 2));
      megabytes.append(at(SIDE + GAP, point.rows, point.megabytes, 1, 4));
    }
    polyline(svg, seconds.toString(), ink, dashed);
    polyline(svg, megabytes.toString(), ink, dashed);
  }

  private static void axes(StringBuilder svg, int x, String what, int from, int to) {
    text(svg, LEFT + x, TOP - 14, "start", what);
    for (int power = from; power <= to; power++) {
      int y = TOP + SIDE - SIDE * (power - from) / (to - from);
      rule(svg, LEFT + x, y, LEFT + x + SIDE, y);
      text(svg, LEFT + x - 6, y + 4, "end", number(power));
    }
    for (int power = 4; power <= 7; power++) {
      int at = LEFT + x + SIDE * (power - 4) / 3;
      rule(svg, at, TOP, at, TOP + SIDE);
      text(
          svg,
          at,
          TOP + SIDE + 18,
          "middle",
          String.format(Locale.ROOT, "%,d", (long) Math.pow(10, power)));
    }
    text(svg, LEFT + x + SIDE / 2, TOP + SIDE + 34, "middle", "rows");
  }

  private static String number(int power) {
    return power < 0
        ? String.format(Locale.ROOT, "%." + -power + "f", Math.pow(10, power))
        : String.valueOf((long) Math.pow(10, power));
  }

  private static void rule(StringBuilder svg, int x1, int y1, int x2, int y2) {
    svg.append(
        String.format(
            Locale.ROOT,
            "<line x1=\"%d\" y1=\"%d\" x2=\"%d\" y2=\"%d\" stroke=\"#d8d2c2\"/>%n",
            x1,
            y1,
            x2,
            y2));
  }

  private static void text(StringBuilder svg, int x, int y, String anchor, String text) {
    svg.append(
        String.format(
            Locale.ROOT,
            "<text x=\"%d\" y=\"%d\" text-anchor=\"%s\" fill=\"#33302a\">%s</text>%n",
            x,
            y,
            anchor,
            text));
  }

  private static String at(int x, double rows, double value, int from, int to) {
    double right = (Math.log10(rows) - 4) / 3;
    double up = Math.clamp((Math.log10(value) - from) / (to - from), 0, 1);
    return String.format(
        Locale.ROOT, "%.1f,%.1f ", LEFT + x + SIDE * right, TOP + SIDE - SIDE * up);
  }

  private static void polyline(StringBuilder svg, String points, String ink, boolean dashed) {
    svg.append("<polyline fill=\"none\" stroke-width=\"2\" stroke=\"")
        .append(ink)
        .append(dashed ? "\" stroke-dasharray=\"5 4" : "")
        .append("\" points=\"")
        .append(points.strip())
        .append("\"/>\n");
  }
}
