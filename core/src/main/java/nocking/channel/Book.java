package nocking.channel;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.UUID;

/** The channels of a bench book, in their order. */
public record Book(List<Channel> channels) {
  public static final Book EMPTY = new Book(List.of());

  public Book {
    channels = List.copyOf(channels);
  }

  public Optional<Channel> byId(String id) {
    return channels.stream().filter(c -> c.id().equals(id)).findFirst();
  }

  /** Channel with a tag, upper or lower case. */
  public Optional<Channel> byTag(String tag) {
    return channels.stream().filter(c -> c.tag().equalsIgnoreCase(tag)).findFirst();
  }

  /** The book with a channel replaced where its id is known, else added at the end. */
  public Book with(Channel channel) {
    var next = new ArrayList<>(channels);
    for (int i = 0; i < next.size(); i++) {
      if (next.get(i).id().equals(channel.id())) {
        next.set(i, channel);
        return new Book(next);
      }
    }
    next.add(channel);
    return new Book(next);
  }

  public Book without(String id) {
    return new Book(channels.stream().filter(c -> !c.id().equals(id)).toList());
  }

  /** A tag that is still free, made from {@code stem}: the stem itself, or with 2, 3 … */
  public String freeTag(String stem) {
    String tag = stem;
    for (int i = 2; byTag(tag).isPresent(); i++) tag = stem + "-" + i;
    return tag;
  }

  public static String newId() {
    return UUID.randomUUID().toString();
  }
}
