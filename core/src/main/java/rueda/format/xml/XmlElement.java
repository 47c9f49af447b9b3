package rueda.format.xml;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import rueda.format.Text;
import rueda.format.UnreadableFile;

/** An element with its children and its text. Names are without prefix. */
public final class XmlElement {

    private final String name;
    private final int line;
    private final Map<String, String> attributes;
    private final List<XmlElement> children = new ArrayList<>(2);
    private String text = "";

    XmlElement(String name, int line, Map<String, String> attributes) {
        this.name = name;
        this.line = line;
        this.attributes = attributes;
    }

    void add(XmlElement child) {
        children.add(child);
    }

    void text(String more) {
        text = text.isEmpty() ? more : text + more;
    }

    public String name() {
        return name;
    }

    public int line() {
        return line;
    }

    /** Its text without the white space around it. */
    public String text() {
        return text.strip();
    }

    public List<XmlElement> children() {
        return children;
    }

    public Stream<XmlElement> all(String child) {
        return children.stream().filter(c -> c.name.equals(child));
    }

    public Optional<XmlElement> first(String child) {
        return all(child).findFirst();
    }

    /** The element at the end of a path of names, each the first. */
    public Optional<XmlElement> at(String... path) {
        Optional<XmlElement> here = Optional.of(this);
        for (String step : path) {
            here = here.flatMap(e -> e.first(step));
        }
        return here;
    }

    /** @throws UnreadableFile when it is missing */
    public XmlElement need(String child) {
        return first(child).orElseThrow(() -> new UnreadableFile(place(), "<" + name + "> without <" + child + ">", "a <" + child + "> in it", "correct the file"));
    }

    /** Text of a child, or the other. */
    public String textOf(String child, String otherwise) {
        return first(child).map(XmlElement::text).orElse(otherwise);
    }

    public String attribute(String key, String otherwise) {
        return attributes.getOrDefault(key, otherwise);
    }

    /** @throws UnreadableFile when it is missing */
    public String needAttribute(String key) {
        String value = attributes.get(key);
        if (value == null) {
            throw new UnreadableFile(place(), "<" + name + "> without " + key, "the attribute " + key, "correct the file");
        }
        return value;
    }

    public Map<String, String> attributes() {
        return attributes;
    }

    public String place() {
        return "line " + line + ", " + name;
    }

    /** Its text as a whole number. */
    public long whole(long low, long high) {
        return Text.whole(place(), text(), low, high);
    }

    /** This element and all below it. */
    public Stream<XmlElement> everything() {
        return Stream.concat(Stream.of(this), children.stream().flatMap(XmlElement::everything));
    }
}
