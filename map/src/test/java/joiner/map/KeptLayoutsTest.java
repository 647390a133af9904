package joiner.map;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.params.provider.Arguments.arguments;

import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import joiner.Pottery;
import joiner.Tries;
import joiner.model.Design;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** A kept layout is the one that would be worked out. */
class KeptLayoutsTest {
  private static LayoutGraph graph(Random random) {
    int regions = random.nextInt(3);
    List<LayoutGraph.Node> nodes =
        IntStream.range(0, random.nextInt(2, 9))
            .mapToObj(
                i ->
                    new LayoutGraph.Node(
                        190,
                        40 + random.nextInt(8) * 20,
                        i < 3 && regions > i ? i : random.nextInt(-1, regions),
                        random.nextInt(4) == 0,
                        random.nextInt(5) == 0
                            ? Optional.of(
                                new LayoutGraph.Wish(random.nextDouble(), random.nextDouble()))
                            : Optional.empty()))
            .toList();
    List<LayoutGraph.Edge> edges =
        IntStream.range(0, random.nextInt(9))
            .mapToObj(
                i ->
                    new LayoutGraph.Edge(
                        random.nextInt(nodes.size()), 38, random.nextInt(nodes.size()), 38))
            .toList();
    return new LayoutGraph(random.nextBoolean(), regions, nodes, edges);
  }

  private static byte[] bytes(Coordinates coordinates) throws IOException {
    var bytes = new ByteArrayOutputStream();
    coordinates.write(new DataOutputStream(bytes));
    return bytes.toByteArray();
  }

  @Test
  void whatIsKeptIsWhatTheKernelSays() throws IOException {
    for (long seed : Tries.of(40).toArray()) {
      LayoutGraph graph = graph(new Random(seed));
      byte[] worked = bytes(LayoutKernel.layOut(graph));
      assertThat(bytes(KeptLayouts.of(graph))).isEqualTo(worked);
      assertThat(KeptLayouts.folder().resolve(graph.digest())).hasBinaryContent(worked);
      assertThat(bytes(KeptLayouts.of(graph))).isEqualTo(worked);
    }
  }

  @Test
  void aFileThatIsNoLayoutOfTheGraphCountsForNothing() throws IOException {
    LayoutGraph graph = graph(new Random(7));
    byte[] worked = bytes(LayoutKernel.layOut(graph));
    Path file = KeptLayouts.folder().resolve(graph.digest());
    Files.createDirectories(file.getParent());
    byte[] other = bytes(LayoutKernel.layOut(new LayoutGraph(false, List.of(), List.of())));
    for (byte[] wrong : List.of(new byte[0], new byte[9], other, new byte[4_000])) {
      Files.write(file, wrong);
      assertThat(bytes(KeptLayouts.of(graph))).isEqualTo(worked);
    }
    for (int length = 0; length < worked.length; length += 7) {
      Files.write(file, Arrays.copyOf(worked, length));
      assertThat(bytes(KeptLayouts.of(graph))).as("cut at " + length).isEqualTo(worked);
    }
  }

  @Test
  void theOldestGo() throws IOException {
    Path folder = KeptLayouts.folder();
    Files.createDirectories(folder);
    for (int i = 0; i < 230; i++) {
      Path file = folder.resolve("old-" + i);
      Files.write(file, new byte[1]);
      Files.setLastModifiedTime(file, java.nio.file.attribute.FileTime.fromMillis(1_000L * i));
    }
    LayoutGraph graph = new LayoutGraph(false, List.of(new LayoutGraph.Node(1, 1)), List.of());
    Files.deleteIfExists(folder.resolve(graph.digest()));
    KeptLayouts.of(graph);
    try (var left = Files.list(folder)) {
      assertThat(left.count()).isEqualTo(200);
    }
    assertThat(folder.resolve("old-0")).doesNotExist();
    assertThat(folder.resolve(graph.digest())).exists();
  }

  private static Stream<Arguments> maps() {
    return Arrays.stream(Detail.values())
        .flatMap(detail -> Arrays.stream(Scope.Areas.values()).map(how -> arguments(detail, how)));
  }

  /**
   * The demo's map comes with Joiner. Where this fails because boards or the demo have changed, the
   * file that it leaves in {@code target/layouts} belongs into the resources instead.
   */
  @ParameterizedTest
  @MethodSource("maps")
  void theDemosMapComesWithJoiner(Detail detail, Scope.Areas areas) throws IOException {
    Design demo = Pottery.demo().design();
    LayoutGraph graph = new LayoutBuilder(demo, Scope.all(demo).with(areas), detail).graph();
    Coordinates worked = LayoutKernel.layOut(graph);
    Path made = Files.createDirectories(Path.of("target", "layouts")).resolve(graph.digest());
    Files.write(made, bytes(worked));
    assertThat(KeptLayouts.shipped(graph, graph.digest()))
        .as("the layout in %s is among the resources", made)
        .hasValueSatisfying(
            there -> {
              try {
                assertThat(bytes(there)).isEqualTo(bytes(worked));
              } catch (IOException e) {
                throw new AssertionError(e);
              }
            });
  }
}
