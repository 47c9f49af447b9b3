package rueda.format.xml;

import java.io.StringWriter;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;

/** Writes XML with two blanks a level. */
public final class XmlWriter {

    private final StringWriter text = new StringWriter();
    private final XMLStreamWriter out;
    private int depth;

    public XmlWriter() {
        try {
            out = XMLOutputFactory.newDefaultFactory().createXMLStreamWriter(text);
            out.writeStartDocument("UTF-8", "1.0");
        } catch (XMLStreamException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    /** Opens an element. @param attributes names and values by turns; a null value leaves the attribute out */
    public XmlWriter open(String name, Object... attributes) {
        start(name, attributes);
        depth++;
        return this;
    }

    /** Ends the element opened last. */
    public XmlWriter close() {
        depth--;
        line();
        run(out::writeEndElement);
        return this;
    }

    /** An element with text and nothing else. */
    public XmlWriter leaf(String name, Object content, Object... attributes) {
        start(name, attributes);
        run(() -> out.writeCharacters(String.valueOf(content)));
        run(out::writeEndElement);
        return this;
    }

    private void start(String name, Object... attributes) {
        line();
        run(() -> out.writeStartElement(name));
        for (int i = 0; i < attributes.length; i += 2) {
            if (attributes[i + 1] != null) {
                String key = (String) attributes[i];
                String value = String.valueOf(attributes[i + 1]);
                run(() -> out.writeAttribute(key, value));
            }
        }
    }

    private void line() {
        run(() -> out.writeCharacters("\n" + "  ".repeat(depth)));
    }

    /** The document; everything must have been closed. */
    public String document() {
        run(out::writeEndDocument);
        run(out::flush);
        return text + "\n";
    }

    private interface Step {
        void run() throws XMLStreamException;
    }

    private static void run(Step step) {
        try {
            step.run();
        } catch (XMLStreamException impossible) {
            throw new IllegalStateException(impossible);
        }
    }
}
