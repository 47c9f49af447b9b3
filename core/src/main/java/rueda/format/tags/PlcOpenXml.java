package rueda.format.tags;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import rueda.format.Text;
import rueda.format.UnreadableFile;
import rueda.format.tags.Declaration.Shape;
import rueda.format.xml.XmlElement;
import rueda.format.xml.XmlReader;
import rueda.format.xml.XmlWriter;
import rueda.plc.ProcessAddress;
import rueda.plc.TagRow;

/**
 * Data types and global variables in the XML of IEC 61131-10, and in the PLCopen scheme TC6 it grew out of (element names of both
 * from memory). Written is that of IEC 61131-10.
 */
public final class PlcOpenXml {

    private PlcOpenXml() {
    }

    /** @throws UnreadableFile naming the line */
    public static List<TagRow> read(byte[] file, int alignment, ProcessAddress.Counts counts) {
        XmlElement root = XmlReader.read(file);
        if (!root.name().equalsIgnoreCase("project")) {
            throw new UnreadableFile(root.place(), "<" + root.name() + ">", "<Project> (IEC 61131-10)", "choose an XML export of the PLC project");
        }
        Map<String, Shape> types = new HashMap<>();
        List<Declaration> variables = new ArrayList<>();
        root.everything().forEach(element -> {
            switch (element.name()) {
                case "DataTypeDecl" -> types.put(element.needAttribute("name").toLowerCase(Locale.ROOT), shape10(element.need("UserDefinedTypeSpec")));
                case "dataType" -> types.put(element.needAttribute("name").toLowerCase(Locale.ROOT), shape6(element.need("baseType")));
                case "GlobalVars" -> element.all("Variable").forEach(v -> variables.add(variable10(v)));
                case "globalVars" -> element.all("variable").forEach(v -> variables.add(variable6(v)));
                default -> { }
            }
        });
        if (variables.isEmpty()) {
            throw new UnreadableFile(root.place(), "no global variable", "variables in <GlobalVars>", "export the global variables too");
        }
        return Declaration.rows(variables, types, alignment, counts);
    }

    private static Declaration variable10(XmlElement variable) {
        String address = variable.at("AddressExpression", "Address").map(a -> a.attribute("address", "")).orElse("");
        String name = variable.at("AddData", "Data", "Tag").map(XmlElement::text).filter(t -> !t.isEmpty()).orElse(variable.needAttribute("name"));
        return new Declaration(name, shape10(variable.need("Type")), address, documentation(variable, "Documentation"), variable.place());
    }

    private static String documentation(XmlElement variable, String name) {
        return variable.first(name).map(d -> d.everything().map(XmlElement::text).filter(t -> !t.isEmpty()).findFirst().orElse("")).orElse("");
    }

    private static Shape shape10(XmlElement type) {
        String kind = type.attribute("type", "");
        if (kind.equals("StructTypeSpec")) {
            return new Shape.Structure(type.all("Member").map(PlcOpenXml::variable10).toList());
        }
        if (type.first("TypeName").isPresent()) {
            return new Shape.Named(type.need("TypeName").text());
        }
        XmlElement array = type.first("InstantlyDefinedType").orElse(type);
        String instant = array.attribute("type", "");
        if (kind.startsWith("Enum") || instant.startsWith("Enum")) {
            return array.first("BaseType").isPresent() ? shape10(array.need("BaseType")) : Declaration.ENUMERATION;
        }
        if (array.first("BaseType").isPresent() && (kind.startsWith("Subrange") || instant.startsWith("Subrange"))) {
            return shape10(array.need("BaseType"));
        }
        if (array.first("BaseType").isPresent()) {
            array.need("DimensionSpec");
            return array(array.all("DimensionSpec").map(d -> d.need("IndexRange")).toList(), shape10(array.need("BaseType")));
        }
        throw new UnreadableFile(type.place(), kind.isEmpty() ? "<" + type.name() + ">" : kind, "a structure, an array or the name of a type", "leave this type out of the export");
    }

    private static Declaration variable6(XmlElement variable) {
        return new Declaration(variable.needAttribute("name"), shape6(variable.need("type")), variable.attribute("address", ""), documentation(variable, "documentation"), variable.place());
    }

    private static Shape shape6(XmlElement type) {
        if (type.children().isEmpty()) {
            throw new UnreadableFile(type.place(), "an empty type", "a type", "correct the file");
        }
        XmlElement inner = type.children().get(0);
        return switch (inner.name()) {
            case "struct" -> new Shape.Structure(inner.all("variable").map(PlcOpenXml::variable6).toList());
            case "derived" -> new Shape.Named(inner.needAttribute("name"));
            case "array" -> {
                inner.need("dimension");
                yield array(inner.all("dimension").toList(), shape6(inner.need("baseType")));
            }
            case "subrangeSigned", "subrangeUnsigned" -> shape6(inner.need("baseType"));
            case "enum" -> inner.first("baseType").isPresent() ? shape6(inner.need("baseType")) : Declaration.ENUMERATION;
            default -> new Shape.Named(inner.name());
        };
    }

    /** @param ranges of the dimensions, the outermost first */
    private static Shape array(List<XmlElement> ranges, Shape element) {
        Shape shape = element;
        for (int i = ranges.size() - 1; i >= 0; i--) {
            XmlElement range = ranges.get(i);
            int lower = (int) Text.whole(range.place(), range.needAttribute("lower"), -32_768, 32_767);
            shape = new Shape.Array(lower, (int) Text.whole(range.place(), range.needAttribute("upper"), lower, lower + 4095L), shape);
        }
        return shape;
    }

    /** A project with these rows as global variables with addresses. @param creation date and time, ISO 8601 */
    public static String write(String project, String creation, List<TagRow> rows) {
        XmlWriter out = new XmlWriter();
        out.open("Project", "xmlns", "www.iec.ch/public/TC65SC65BWG7TF10", "xmlns:xsi", "http://www.w3.org/2001/XMLSchema-instance", "schemaVersion", "1.0");
        out.open("FileHeader", "companyName", "Rueda", "productName", "Rueda", "productVersion", "0.1.0").close();
        out.open("ContentHeader", "name", project, "creationDateTime", creation).close();
        out.open("Types").open("GlobalNamespace").close().close();
        out.open("Instances").open("Configuration", "name", "Configuration").open("Resource", "name", "Resource", "resourceTypeName", "PLC").open("GlobalVars");
        DeclaredNames names = new DeclaredNames();
        for (TagRow row : rows) {
            String identifier = names.identifier(row.name());
            out.open("Variable", "name", identifier);
            if (!identifier.equals(row.name())) {
                out.open("AddData").open("Data", "name", "rueda.tag", "handleUnknown", "preserve").leaf("Tag", row.name()).close().close();
            }
            if (!row.comment().isEmpty()) {
                out.open("Documentation", "xsi:type", "SimpleText").leaf("Text", row.comment()).close();
            }
            out.open("Type").leaf("TypeName", row.type()).close();
            if (!row.address().isEmpty()) {
                out.open("AddressExpression").open("Address", "address", row.address()).close().close();
            }
            out.close();
        }
        return out.close().close().close().close().close().document();
    }
}
