package nocking.channel;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import nocking.Channels;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** What is wrong in a document is one sentence: where, what was read, what was expected. */
class JsonSentenceTest {
  private static final JsonMapper MAPPER = new JsonMapper();
  private static final String SOUND = ChannelJson.write(Channels.blower());

  /** The channel's file with one place holding something else. */
  private static String with(String path, String json) {
    var root = (ObjectNode) MAPPER.readTree(SOUND);
    int cut = path.lastIndexOf('/');
    JsonNode parent = cut == 0 ? root : root.at(path.substring(0, cut));
    ((ObjectNode) parent).set(path.substring(cut + 1), MAPPER.readTree(json));
    return MAPPER.writeValueAsString(root);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "/channel/definition/kind | \"presure\" | channel.definition.kind: read 'presure', expected one of temperature, pressure,",
        "/channel/definition/kind | 3 | channel.definition.kind: read '3', expected one of temperature,",
        "/channel/definition/low | true | channel.definition.low: read true or false, expected a number",
        "/channel/definition/low | [1] | channel.definition.low: read a list, expected a number",
        "/channel/definition/low | {\"value\": 1} | channel.definition.low: a value needs \"value\" and \"typed\"",
        "/channel/definition/low | \"5 kPa\" | channel.definition.low: '5 kPa' has a unit; write the number in the channel's own unit",
        "/channel/definition/unit | null | channel.definition.unit is missing",
        "/channel/definition/colour | 1 | channel.definition.colour: 'colour' is not known here; known are",
        "/channel/stages | {} | channel.stages: read an object, expected a list",
        "/channel/stages | null | channel.stages is missing",
        "/channel/stages | [null] | channel.stages[0] is missing",
        "/channel/sensor | {\"model\": \"of tomorrow\"} | channel.sensor: 'of tomorrow' is not known to this version of Nocking",
        "/channel/sensor | {} | channel.sensor: it does not say of which kind it is",
        "/channel/locked | null | channel.locked: read nothing, expected true or false",
        "/channel/locked | 1 | channel.locked: read '1', expected true or false",
        "/channel/points | [] | channel.points: read a list, expected an object with raw, points",
        "/channel | null | the channel is missing",
        "/format | \"of tomorrow\" | format reads \"of tomorrow\", expected \"nocking-channel-1\"",
      })
  void theSentenceNamesPlaceReadAndExpected(String path, String json, String sentence) {
    String document = with(path, json);
    assertThatThrownBy(() -> ChannelJson.readChannel(document, "c.json"))
        .isInstanceOf(DocumentException.class)
        .hasMessageStartingWith("c.json: ")
        .hasMessageContaining(sentence)
        .satisfies(
            e -> assertThat(e.getMessage()).doesNotContainPattern("java|Exception|nocking\\."));
  }

  /** Cut off anywhere, a document is not JSON, and the place says where it ends. */
  @Test
  void whatIsCutOffIsNotJson() {
    for (int length = 1; length < SOUND.length() - 2; length += 97) {
      String cut = SOUND.substring(0, length);
      assertThatThrownBy(() -> ChannelJson.readChannel(cut, "c.json"))
          .as(cut)
          .isInstanceOf(DocumentException.class)
          .hasMessageStartingWith("c.json: line ");
    }
  }

  @ParameterizedTest
  @ValueSource(strings = {"{\"format\": nonsense}", "{'format': 1}", "[1, 2", "{} {}", "\u0000"})
  void whatIsNotJsonIsCalledThat(String text) {
    assertThatThrownBy(() -> ChannelJson.readAny(text, "c.json"))
        .isInstanceOf(DocumentException.class)
        .hasMessageStartingWith("c.json: ")
        .satisfies(
            e -> assertThat(e.getMessage()).doesNotContainPattern("java|Exception|nocking\\."));
  }

  /** What a channel may be without stays out, and is read as it was. */
  @ParameterizedTest
  @ValueSource(strings = {"notes", "surroundings", "bands", "seen", "card", "table", "adopted"})
  void whatMayBeMissingMayBeNull(String field) {
    Channel c = ChannelJson.readChannel(with("/channel/" + field, "null"), "c.json");
    assertThat(c).isEqualTo(Channels.blower());
  }
}
