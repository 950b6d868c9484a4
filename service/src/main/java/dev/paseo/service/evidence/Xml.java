package dev.paseo.service.evidence;

import java.io.InputStream;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Optional;
import java.util.function.Consumer;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

/**
 * Reads XML as a stream, element by element; no document types with entities, nothing fetched, nothing deeper than any
 * report is.
 */
public final class Xml {

    private static final int MOST_DEPTH = 100;
    private static final XMLInputFactory FACTORY = factory();

    private Xml() {}

    private static XMLInputFactory factory() {
        XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        factory.setProperty(XMLInputFactory.IS_COALESCING, false);
        return factory;
    }

    /** Hears of elements as they open and close, and of the text within them. */
    interface Handler {

        /** @param path the names of the elements that are open, this one included */
        void opens(Deque<String> path, XMLStreamReader element);

        void text(Deque<String> path, String text);

        void closes(Deque<String> path);

        /** Whether a document type may stand before it, as coverage reports have one; nothing of it is read. */
        default boolean takesDoctype() {
            return true;
        }
    }

    static void read(InputStream in, Handler handler) {
        Deque<String> path = new ArrayDeque<>();
        try {
            XMLStreamReader reader = FACTORY.createXMLStreamReader(new TagGuard(in));
            while (reader.hasNext()) {
                next(reader, path, handler);
            }
        } catch (XMLStreamException broken) {
            throw new UnreadableReport(Optional.ofNullable(broken.getLocation())
                    .map(at -> at.getLineNumber() + ":" + at.getColumnNumber() + " ").orElse("")
                    + "not well-formed XML");
        }
    }

    /** The texts of all elements of a name, in their order. */
    public static void texts(InputStream in, String element, Consumer<String> texts) {
        StringBuilder text = new StringBuilder();
        read(in, new Handler() {
            @Override
            public void opens(Deque<String> path, XMLStreamReader reader) {
                text.setLength(0);
            }

            @Override
            public void text(Deque<String> path, String more) {
                text.append(more);
            }

            @Override
            public void closes(Deque<String> path) {
                if (path.getLast().equals(element)) {
                    texts.accept(text.toString().strip());
                }
            }
        });
    }

    private static void next(XMLStreamReader reader, Deque<String> path, Handler handler) throws XMLStreamException {
        switch (reader.next()) {
            case XMLStreamConstants.START_ELEMENT -> {
                path.addLast(reader.getLocalName());
                if (path.size() > MOST_DEPTH) {
                    throw new UnreadableReport("nested deeper than " + MOST_DEPTH + " elements");
                }
                handler.opens(path, reader);
            }
            case XMLStreamConstants.CHARACTERS, XMLStreamConstants.CDATA -> handler.text(path, reader.getText());
            case XMLStreamConstants.END_ELEMENT -> {
                handler.closes(path);
                path.removeLast();
            }
            case XMLStreamConstants.DTD -> {
                if (!handler.takesDoctype()) {
                    throw new UnreadableReport("has a document type (<!DOCTYPE …>), which such a report has not");
                }
            }
            case XMLStreamConstants.ENTITY_REFERENCE -> throw new UnreadableReport(
                    reader.getLocation().getLineNumber() + ":"
                            + reader.getLocation().getColumnNumber() + " refers to the entity " + reader.getLocalName()
                            + "; entities are not read");
            default -> {}
        }
    }

    static Optional<String> attribute(XMLStreamReader element, String name) {
        return Optional.ofNullable(element.getAttributeValue(null, name));
    }

    /** The largest number that a report can mean. */
    private static final double LARGEST = 1e12;

    /** A number in an attribute, from 0 to 10¹²; 0 where it is absent, none, or out of this range. */
    static double number(XMLStreamReader element, String name) {
        try {
            return attribute(element, name).map(text -> Double.parseDouble(text.replace(",", "")))
                    .filter(number -> number >= 0 && number <= LARGEST).orElse(0.0);
        } catch (NumberFormatException none) {
            return 0;
        }
    }
}
