package rueda.format.program;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import rueda.format.UnreadableFile;
import rueda.format.xml.XmlElement;
import rueda.format.xml.XmlReader;
import rueda.machine.Plc.SourceFile;

/**
 * Programs in the XML of IEC 61131-10 and of the PLCopen scheme TC6 (element names of both from memory): declarations become Structured Text,
 * bodies in Structured Text stay as they are. Bodies in other languages are told, unit by unit, and left out.
 */
final class ProgramXml {

    /** Sections of declarations, by the element names of both schemes in lower case. */
    private static final Map<String, String> SECTIONS = Map.of("inputvars", "VAR_INPUT", "outputvars", "VAR_OUTPUT", "inoutvars", "VAR_IN_OUT", "localvars", "VAR", "vars", "VAR",
            "tempvars", "VAR_TEMP", "externalvars", "VAR_EXTERNAL", "globalvars", "VAR_GLOBAL");
    private static final Map<String, String> UNITS = Map.of("program", "PROGRAM", "function", "FUNCTION", "functionblock", "FUNCTION_BLOCK");

    private final List<SourceFile> files = new ArrayList<>();
    private final List<String> told = new ArrayList<>();
    private final StringBuilder types = new StringBuilder();
    private final StringBuilder globals = new StringBuilder();

    private ProgramXml() {
    }

    static ProgramFiles.Read read(byte[] content) {
        XmlElement root = XmlReader.read(content);
        if (!root.name().equalsIgnoreCase("project")) {
            throw new UnreadableFile(root.place(), "<" + root.name() + ">", "<Project> (IEC 61131-10)", "choose an XML export of the PLC project");
        }
        ProgramXml xml = new ProgramXml();
        root.everything().forEach(xml::take);
        if (!xml.types.isEmpty()) {
            xml.files.add(0, new SourceFile("Types.st", "TYPE\n" + xml.types + "END_TYPE\n"));
        }
        if (!xml.globals.isEmpty()) {
            xml.files.add(0, new SourceFile("Globals.st", xml.globals.toString()));
        }
        if (xml.files.isEmpty()) {
            throw new UnreadableFile(root.place(), xml.told.isEmpty() ? "no unit" : xml.told.get(0), "programs, functions or function blocks with bodies in Structured Text", "export the program too");
        }
        return new ProgramFiles.Read(xml.files, xml.told);
    }

    private void take(XmlElement element) {
        String name = element.name();
        if (name.equals("pou")) {
            unit(UNITS.get(element.attribute("pouType", "").toLowerCase(Locale.ROOT)), element, element.first("interface").orElse(element));
        } else if (UNITS.containsKey(name.toLowerCase(Locale.ROOT)) && element.attributes().containsKey("name") && (element.first("MainBody").isPresent() || element.first("Parameters").isPresent() || element.first("Vars").isPresent())) {
            unit(UNITS.get(name.toLowerCase(Locale.ROOT)), element, element);
        } else if (name.equals("DataTypeDecl") || name.equals("dataType")) {
            type(element);
        } else if (name.equalsIgnoreCase("globalvars")) {
            section("VAR_GLOBAL", element, globals);
        }
    }

    private void unit(String kind, XmlElement element, XmlElement declarations) {
        String name = element.attribute("name", "");
        if (kind == null) {
            told.add("The unit " + name + " was left out: " + element.attribute("pouType", element.name()) + " is no program, function or function block.");
            return;
        }
        StringBuilder text = new StringBuilder(kind).append(' ').append(name);
        declarations.children().stream().filter(c -> c.name().equalsIgnoreCase("returnType") || c.name().equalsIgnoreCase("resultType")).findFirst()
                .ifPresent(result -> text.append(" : ").append(written(result)));
        text.append('\n');
        declarations.children().forEach(c -> sections(c, text));
        String body = body(element);
        if (body == null) {
            told.add("The body of " + name + " was left out: it is not written in Structured Text.");
        }
        text.append(body == null || body.isBlank() ? ";" : body).append('\n').append("END_").append(kind).append('\n');
        files.add(new SourceFile(name + ".st", text.toString()));
    }

    private void sections(XmlElement element, StringBuilder text) {
        String section = SECTIONS.get(element.name().toLowerCase(Locale.ROOT));
        if (section != null && !section.equals("VAR_GLOBAL")) {
            section(section, element, text);
        } else if (element.name().equals("Parameters")) {
            element.children().forEach(c -> sections(c, text));
        }
    }

    private void section(String section, XmlElement element, StringBuilder text) {
        List<XmlElement> variables = element.children().stream().filter(c -> c.name().equalsIgnoreCase("variable")).toList();
        if (variables.isEmpty()) {
            return;
        }
        text.append(section);
        text.append(element.attribute("constant", "").equals("true") ? " CONSTANT" : "").append(element.attribute("retain", "").equals("true") ? " RETAIN" : "").append('\n');
        variables.forEach(v -> text.append("    ").append(variable(v)).append('\n'));
        text.append("END_VAR\n");
    }

    private static String variable(XmlElement variable) {
        StringBuilder text = new StringBuilder(variable.needAttribute("name"));
        String address = variable.at("AddressExpression", "Address").map(a -> a.attribute("address", "")).orElse(variable.attribute("address", ""));
        text.append(address.isEmpty() ? "" : " AT " + address);
        XmlElement type = variable.first("Type").or(() -> variable.first("type")).orElseThrow(() -> new UnreadableFile(variable.place(), "<" + variable.name() + "> without a type", "a <Type> in it", "correct the file"));
        String edge = switch (variable.attribute("edgeDetection", "").toLowerCase(Locale.ROOT)) {
            case "rising" -> " R_EDGE";
            case "falling" -> " F_EDGE";
            default -> "";
        };
        text.append(" : ").append(written(type)).append(edge).append(initial(variable)).append(';');
        String words = variable.children().stream().filter(c -> c.name().equalsIgnoreCase("documentation")).flatMap(XmlElement::everything).map(XmlElement::text).filter(t -> !t.isEmpty()).findFirst().orElse("");
        return text.append(words.isEmpty() ? "" : " (* " + words.replace("*)", "* )").replace("(*", "( *") + " *)").toString();
    }

    private static String initial(XmlElement of) {
        return of.children().stream().filter(c -> c.name().equalsIgnoreCase("initialValue")).findFirst().map(v -> " := " + value(v)).orElse("");
    }

    /** simpleValue, arrayValue, structValue; in the newer scheme with capital letters. */
    private static String value(XmlElement element) {
        for (XmlElement inner : element.children()) {
            switch (inner.name().toLowerCase(Locale.ROOT)) {
                case "simplevalue" -> {
                    return inner.attribute("value", inner.text());
                }
                case "arrayvalue" -> {
                    return "[" + String.join(", ", inner.children().stream().map(v -> {
                        String times = v.attribute("repetitionValue", "1");
                        return times.equals("1") ? value(v) : times + "(" + value(v) + ")";
                    }).toList()) + "]";
                }
                case "structvalue" -> {
                    return "(" + String.join(", ", inner.children().stream().map(v -> v.attribute("member", "") + " := " + value(v)).toList()) + ")";
                }
                default -> { }
            }
        }
        return element.text();
    }

    private void type(XmlElement declaration) {
        XmlElement spec = declaration.first("UserDefinedTypeSpec").or(() -> declaration.first("baseType")).orElse(null);
        if (spec == null) {
            told.add("The type " + declaration.attribute("name", "") + " was left out: it says nothing of what it is.");
            return;
        }
        types.append("    ").append(declaration.needAttribute("name")).append(" : ").append(written(spec)).append(initial(declaration)).append(";\n");
    }

    /** A type as it is written in a declaration. */
    private static String written(XmlElement type) {
        String kind = type.attribute("type", type.attribute("xsi:type", ""));
        if (type.first("TypeName").isPresent() && type.first("BaseType").isEmpty()) {
            return type.textOf("TypeName", "");
        }
        List<XmlElement> members = type.all("Member").toList();
        if (!members.isEmpty()) {
            return structure(members);
        }
        List<XmlElement> values = type.all("Enumerator").toList();
        if (!values.isEmpty()) {
            return enumeration(values, type.first("BaseType").map(ProgramXml::written).orElse(""));
        }
        if (type.first("DimensionSpec").isPresent()) {
            List<XmlElement> ranges = type.all("DimensionSpec").map(d -> d.need("IndexRange")).toList();
            return array(ranges, written(type.need("BaseType")));
        }
        if (type.first("ReferencedType").isPresent()) {
            return "REF_TO " + written(type.need("ReferencedType"));
        }
        if (type.first("Range").isPresent() && type.first("BaseType").isPresent()) {
            XmlElement range = type.need("Range");
            return written(type.need("BaseType")) + " (" + range.needAttribute("lower") + ".." + range.needAttribute("upper") + ")";
        }
        if (type.first("InstantlyDefinedType").isPresent()) {
            return written(type.need("InstantlyDefinedType"));
        }
        if (type.first("BaseType").isPresent()) {
            return written(type.need("BaseType"));
        }
        if (type.children().isEmpty()) {
            if (!type.text().isEmpty()) {
                return type.text();
            }
            throw new UnreadableFile(type.place(), kind.isEmpty() ? "an empty type" : kind, "a type", "correct the file");
        }
        return older(type.children().get(0));
    }

    /** A type of the scheme TC6: the element's name is the type. */
    private static String older(XmlElement inner) {
        return switch (inner.name()) {
            case "derived" -> inner.needAttribute("name");
            case "struct" -> structure(inner.all("variable").toList());
            case "enum" -> enumeration(inner.first("values").map(v -> v.all("value").toList()).orElse(List.of()), inner.first("baseType").map(ProgramXml::written).orElse(""));
            case "array" -> array(inner.all("dimension").toList(), written(inner.need("baseType")));
            case "subrangeSigned", "subrangeUnsigned" -> written(inner.need("baseType")) + " (" + inner.need("range").needAttribute("lower") + ".." + inner.need("range").needAttribute("upper") + ")";
            case "pointer" -> "REF_TO " + written(inner.need("baseType"));
            case "string", "wstring" -> inner.name().toUpperCase(Locale.ROOT) + (inner.attributes().containsKey("length") ? "[" + inner.attribute("length", "80") + "]" : "");
            default -> inner.name();
        };
    }

    private static String structure(List<XmlElement> members) {
        StringBuilder text = new StringBuilder("STRUCT\n");
        members.forEach(m -> text.append("        ").append(variable(m)).append('\n'));
        return text.append("    END_STRUCT").toString();
    }

    private static String enumeration(List<XmlElement> values, String base) {
        List<String> written = new ArrayList<>();
        for (XmlElement value : values) {
            String number = value.attribute("value", value.textOf("Value", ""));
            written.add(value.needAttribute("name") + (number.isEmpty() ? "" : " := " + number));
        }
        return (base.isEmpty() ? "" : base + " ") + "(" + String.join(", ", written) + ")";
    }

    private static String array(List<XmlElement> ranges, String element) {
        return "ARRAY [" + String.join(", ", ranges.stream().map(r -> r.needAttribute("lower").equals("*") ? "*" : r.needAttribute("lower") + ".." + r.needAttribute("upper")).toList()) + "] OF " + element;
    }

    /** The body in Structured Text, or null. */
    private static String body(XmlElement unit) {
        XmlElement body = unit.first("MainBody").or(() -> unit.first("body")).orElse(null);
        if (body == null) {
            return "";
        }
        return body.everything().filter(e -> e.name().equals("ST")).findFirst().map(st -> {
            StringBuilder text = new StringBuilder();
            st.everything().map(XmlElement::text).filter(t -> !t.isEmpty()).forEach(t -> text.append(t).append('\n'));
            return text.toString();
        }).orElse(null);
    }
}
