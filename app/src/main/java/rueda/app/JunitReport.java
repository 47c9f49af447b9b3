package rueda.app;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;
import rueda.app.ProveCommand.ProofReport;
import rueda.proof.Verdict;
import rueda.proof.repeat.ConditionMap;

/** Verdicts as JUnit XML, the form that build servers read: a suite for each proof, a case for each expectation. */
final class JunitReport {

    private JunitReport() {
    }

    static void write(Path file, String machine, List<ProofReport> proofs) throws IOException {
        try (OutputStream out = Files.newOutputStream(file)) {
            XMLStreamWriter xml = XMLOutputFactory.newInstance().createXMLStreamWriter(out, "UTF-8");
            xml.writeStartDocument("UTF-8", "1.0");
            xml.writeStartElement("testsuites");
            xml.writeAttribute("name", clean(machine));
            for (ProofReport proof : proofs) {
                suite(xml, proof);
            }
            xml.writeEndElement();
            xml.writeEndDocument();
            xml.close();
        } catch (XMLStreamException failed) {
            throw new IOException(failed);
        }
    }

    private static void suite(XMLStreamWriter xml, ProofReport proof) throws XMLStreamException {
        List<ConditionMap.MapColumn> columns = proof.conditions() == null ? List.of() : proof.conditions().columns();
        long failures = proof.verdicts().stream().filter(v -> !v.holds()).count() + columns.stream().filter(c -> c.failed() > 0).count() + (proof.stopped() == null ? 0 : 1);
        xml.writeStartElement("testsuite");
        xml.writeAttribute("name", clean(proof.proof()));
        xml.writeAttribute("tests", Integer.toString(proof.verdicts().size() + columns.size() + (proof.stopped() == null ? 0 : 1)));
        xml.writeAttribute("failures", Long.toString(failures));
        xml.writeAttribute("errors", "0");
        xml.writeAttribute("time", String.format(Locale.ROOT, "%.3f", proof.seconds()));
        String suite = proof.group().isEmpty() ? proof.proof() : proof.group() + "." + proof.proof();
        for (Verdict verdict : proof.verdicts()) {
            one(xml, suite, verdict.sentence(), verdict.holds() ? null : verdict.cause());
        }
        if (proof.stopped() != null) {
            one(xml, suite, "The program runs to its end", proof.stopped());
        }
        for (ConditionMap.MapColumn column : columns) {
            one(xml, suite, column.sentence() + ", under its conditions", column.failed() == 0 ? null
                    : "It does not hold in " + column.failed() + " of " + proof.conditions().runs() + " runs; the worst is run " + column.worst() + (column.margin() == null ? "." : String.format(Locale.ROOT, ", room %.4g %s.", column.margin(), column.unit())));
        }
        xml.writeEndElement();
    }

    private static void one(XMLStreamWriter xml, String suite, String name, String failure) throws XMLStreamException {
        xml.writeStartElement("testcase");
        xml.writeAttribute("classname", clean(suite));
        xml.writeAttribute("name", clean(name));
        if (failure != null) {
            xml.writeStartElement("failure");
            xml.writeAttribute("message", clean(failure));
            xml.writeEndElement();
        }
        xml.writeEndElement();
    }

    /** Without what XML 1.0 cannot hold. */
    private static String clean(String text) {
        return text == null ? "" : text.replaceAll("[^\\x{9}\\x{A}\\x{D}\\x{20}-\\x{D7FF}\\x{E000}-\\x{FFFD}\\x{10000}-\\x{10FFFF}]", "�");
    }
}
