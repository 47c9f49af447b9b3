package rueda.format.xml;

import java.io.ByteArrayInputStream;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.Map;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import rueda.format.Text;
import rueda.format.UnreadableFile;

/** Reads a whole document into elements. */
public final class XmlReader {

    private static final int MOST_DEPTH = 100;
    private static final int MOST_ELEMENTS = 2_000_000;
    private static final int MOST_TEXT = 1 << 20;
    private static final XMLInputFactory FACTORY = factory();

    private XmlReader() {
    }

    private static XMLInputFactory factory() {
        XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        factory.setProperty(XMLInputFactory.IS_REPLACING_ENTITY_REFERENCES, false);
        factory.setProperty(XMLInputFactory.IS_COALESCING, true);
        // What is wrong is thrown; without a reporter the parser would print it as well.
        factory.setXMLReporter((message, type, information, location) -> { });
        return factory;
    }

    /** @throws UnreadableFile naming the line that cannot be read */
    public static XmlElement read(byte[] file) {
        Text.bounded(file);
        XMLStreamReader in = null;
        try {
            in = FACTORY.createXMLStreamReader(new ByteArrayInputStream(file));
            return elements(in);
        } catch (XMLStreamException broken) {
            int line = broken.getLocation() == null ? 1 : broken.getLocation().getLineNumber();
            String said = String.valueOf(broken.getMessage()).replaceAll("(?s)^.*Message: ", "").strip();
            throw new UnreadableFile("line " + line, said, "well-formed XML that is complete", "get the file again, or save it as XML");
        } catch (RuntimeException broken) {
            if (broken instanceof UnreadableFile) {
                throw broken;
            }
            throw new UnreadableFile("file", String.valueOf(broken.getMessage()), "well-formed XML in a known encoding", "save the file as XML in UTF-8");
        } finally {
            close(in);
        }
    }

    private static void close(XMLStreamReader in) {
        if (in != null) {
            try {
                in.close();
            } catch (XMLStreamException ignored) {
                /* nothing is held but memory */
            }
        }
    }

    private static XmlElement elements(XMLStreamReader in) throws XMLStreamException {
        Deque<XmlElement> open = new ArrayDeque<>();
        Map<String, String> names = new HashMap<>();
        XmlElement root = null;
        int count = 0;
        while (in.hasNext()) {
            switch (in.next()) {
                case XMLStreamConstants.DTD -> throw new UnreadableFile(line(in), "a document type", "XML without DOCTYPE", "remove the DOCTYPE from the file");
                case XMLStreamConstants.ENTITY_REFERENCE -> throw new UnreadableFile(line(in), "&" + in.getLocalName() + ";", "text without entities of its own", "write the text itself");
                case XMLStreamConstants.START_ELEMENT -> {
                    if (++count > MOST_ELEMENTS) {
                        throw new UnreadableFile(line(in), count + " elements", "up to " + MOST_ELEMENTS, "take what is needed out of the file");
                    }
                    if (open.size() >= MOST_DEPTH) {
                        throw new UnreadableFile(line(in), "elements nested " + (open.size() + 1) + " deep", "up to " + MOST_DEPTH, "correct the file");
                    }
                    XmlElement element = new XmlElement(shared(names, in.getLocalName()), in.getLocation().getLineNumber(), attributes(in, names));
                    if (open.isEmpty()) {
                        root = element;
                    } else {
                        open.peek().add(element);
                    }
                    open.push(element);
                }
                case XMLStreamConstants.CHARACTERS, XMLStreamConstants.CDATA -> {
                    if (!open.isEmpty() && !in.isWhiteSpace()) {
                        if (in.getTextLength() > MOST_TEXT) {
                            throw new UnreadableFile(line(in), in.getTextLength() + " characters of text", "up to " + MOST_TEXT, "correct the file");
                        }
                        open.peek().text(in.getText());
                    }
                }
                case XMLStreamConstants.END_ELEMENT -> open.pop();
                default -> { }
            }
        }
        return root;
    }

    private static String line(XMLStreamReader in) {
        return "line " + in.getLocation().getLineNumber();
    }

    private static String shared(Map<String, String> names, String name) {
        String known = names.putIfAbsent(name, name);
        return known == null ? name : known;
    }

    private static Map<String, String> attributes(XMLStreamReader in, Map<String, String> names) {
        int count = in.getAttributeCount();
        if (count == 0) {
            return Map.of();
        }
        Map<String, String> attributes = new HashMap<>(count * 2);
        for (int i = 0; i < count; i++) {
            attributes.put(shared(names, in.getAttributeLocalName(i)), in.getAttributeValue(i));
        }
        return attributes;
    }
}
