package rueda.format.program;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import rueda.format.UnreadableFile;
import rueda.format.xml.XmlWriter;
import rueda.machine.Plc.SourceFile;
import rueda.plc.syntax.Complaints;
import rueda.plc.syntax.ExpressionSyntax;
import rueda.plc.syntax.FileSyntax;
import rueda.plc.syntax.Parser;
import rueda.plc.syntax.Place;
import rueda.plc.syntax.StatementSyntax.Input;
import rueda.plc.syntax.TypeSyntax;
import rueda.plc.syntax.UnitBodies;
import rueda.plc.syntax.UnitSyntax;
import rueda.plc.syntax.UnitSyntax.Declaration;
import rueda.plc.syntax.UnitSyntax.Section;
import rueda.plc.syntax.WrittenExpression;

/**
 * Programs as XML of IEC 61131-10 (element names from memory): types, global variables and units with their declarations; bodies stay in
 * Structured Text as they are written, with their comments. Comments in declarations are left out.
 */
final class ProgramXmlWriter {

    private static final Map<Section, String> SECTIONS = Map.of(Section.VAR_INPUT, "InputVars", Section.VAR_OUTPUT, "OutputVars", Section.VAR_IN_OUT, "InOutVars", Section.VAR, "Vars", Section.VAR_TEMP, "TempVars", Section.VAR_EXTERNAL, "ExternalVars");
    private static final Map<UnitSyntax.Kind, String> UNITS = Map.of(UnitSyntax.Kind.PROGRAM, "Program", UnitSyntax.Kind.FUNCTION, "Function", UnitSyntax.Kind.FUNCTION_BLOCK, "FunctionBlock");

    private final XmlWriter out = new XmlWriter();

    private ProgramXmlWriter() {
    }

    /** A text and what it holds. */
    private record Read(SourceFile file, FileSyntax syntax, List<String> bodies) {
    }

    /** @param creation time of writing, ISO 8601  @throws UnreadableFile when a text has a mistake */
    static String write(String project, String creation, List<SourceFile> files) {
        List<Read> all = new ArrayList<>();
        for (SourceFile file : files) {
            all.add(new Read(file, Parser.parse(file.source(), complaints(file)), UnitBodies.of(file.source())));
        }
        return new ProgramXmlWriter().project(project, creation, all);
    }

    private static Complaints complaints(SourceFile file) {
        return new Complaints() {
            @Override
            public void at(Place place, String message) {
                throw new UnreadableFile(file.name() + ", line " + place.line(), message, "a text without mistakes", "mend it first");
            }

            @Override
            public boolean full() {
                return false;
            }
        };
    }

    private String project(String project, String creation, List<Read> all) {
        out.open("Project", "xmlns", "www.iec.ch/public/TC65SC65BWG7TF10", "xmlns:xsi", "http://www.w3.org/2001/XMLSchema-instance", "schemaVersion", "1.0");
        out.open("FileHeader", "companyName", "Rueda", "productName", "Rueda", "productVersion", "0.1.0").close();
        out.open("ContentHeader", "name", project, "creationDateTime", creation).close();
        out.open("Types").open("GlobalNamespace");
        all.forEach(read -> read.syntax().types().forEach(this::type));
        for (Read read : all) {
            for (int i = 0; i < read.syntax().units().size(); i++) {
                unit(read.syntax().units().get(i), read.bodies().get(i));
            }
        }
        out.close().close();
        out.open("Instances").open("Configuration", "name", "Configuration").open("Resource", "name", "Resource", "resourceTypeName", "PLC");
        all.forEach(read -> sections(read.syntax().globals(), "GlobalVars"));
        out.close().close().close().close();
        return out.document();
    }

    private void type(FileSyntax.TypeDeclaration declaration) {
        out.open("DataTypeDecl", "name", declaration.name());
        spec("UserDefinedTypeSpec", declaration.type());
        initial(declaration.initial());
        out.close();
    }

    private void unit(UnitSyntax unit, String body) {
        out.open(UNITS.get(unit.kind()), "name", unit.name());
        if (unit.result() != null) {
            out.open("ResultType");
            named(unit.result());
            out.close();
        }
        List<Declaration> parameters = unit.declarations().stream().filter(d -> d.section() == Section.VAR_INPUT || d.section() == Section.VAR_OUTPUT || d.section() == Section.VAR_IN_OUT).toList();
        if (!parameters.isEmpty()) {
            out.open("Parameters");
            bySection(parameters);
            out.close();
        }
        bySection(unit.declarations().stream().filter(d -> !parameters.contains(d)).toList());
        out.open("MainBody").open("BodyContent", "xsi:type", "ST").leaf("ST", body.strip()).close().close();
        out.close();
    }

    private void bySection(List<Declaration> declarations) {
        Map<Section, List<Declaration>> bySection = new LinkedHashMap<>();
        declarations.forEach(d -> bySection.computeIfAbsent(d.section(), s -> new ArrayList<>()).add(d));
        bySection.forEach((section, list) -> sections(list, SECTIONS.get(section)));
    }

    /** Neighbours with the same qualifiers together. */
    private void sections(List<Declaration> declarations, String element) {
        for (int from = 0; from < declarations.size(); ) {
            Declaration first = declarations.get(from);
            int to = from;
            while (to < declarations.size() && declarations.get(to).constant() == first.constant() && declarations.get(to).retained() == first.retained()) {
                to++;
            }
            out.open(element, "constant", first.constant() ? "true" : null, "retain", first.retained() ? "true" : null);
            declarations.subList(from, to).forEach(d -> d.names().forEach(name -> variable("Variable", name.path(), d)));
            out.close();
            from = to;
        }
    }

    private void variable(String element, String name, Declaration declaration) {
        out.open(element, "name", name, "edgeDetection", switch (declaration.edge()) {
            case NONE -> null;
            case RISING -> "rising";
            case FALLING -> "falling";
        });
        out.open("Type");
        named(declaration.type());
        out.close();
        initial(declaration.initial());
        if (declaration.address() != null) {
            out.open("AddressExpression").open("Address", "address", declaration.address().text()).close().close();
        }
        out.close();
    }

    /** A type by its name, or one that is made where it is used. */
    private void named(TypeSyntax type) {
        if (type instanceof TypeSyntax.Named named) {
            out.leaf("TypeName", named.name() + (named.length() == null ? "" : "[" + WrittenExpression.of(named.length()) + "]"));
        } else {
            spec("InstantlyDefinedType", type);
        }
    }

    private void spec(String element, TypeSyntax type) {
        if (type instanceof TypeSyntax.Struct struct) {
            out.open(element, "xsi:type", "StructTypeSpec");
            struct.members().forEach(d -> d.names().forEach(name -> variable("Member", name.path(), d)));
        } else if (type instanceof TypeSyntax.Enumeration enumeration) {
            out.open(element, "xsi:type", "EnumTypeWithNamedValueSpec");
            if (enumeration.base() != null) {
                out.open("BaseType");
                named(enumeration.base());
                out.close();
            }
            enumeration.values().forEach(v -> out.open("Enumerator", "name", v.name(), "value", v.value() == null ? null : WrittenExpression.of(v.value())).close());
        } else if (type instanceof TypeSyntax.ArrayOf array) {
            out.open(element, "xsi:type", "ArrayTypeSpec");
            out.open("BaseType");
            named(array.element());
            out.close();
            for (int i = 0; i < array.ranges().size(); i++) {
                TypeSyntax.Range range = array.ranges().get(i);
                out.open("DimensionSpec", "dimensionNumber", i + 1).open("IndexRange", "lower", range.open() ? "*" : WrittenExpression.of(range.low()), "upper", range.open() ? "*" : WrittenExpression.of(range.high())).close().close();
            }
        } else if (type instanceof TypeSyntax.Subrange subrange) {
            out.open(element, "xsi:type", "SubrangeTypeSpec");
            out.open("BaseType");
            named(subrange.base());
            out.close();
            out.open("Range", "lower", WrittenExpression.of(subrange.low()), "upper", WrittenExpression.of(subrange.high())).close();
        } else if (type instanceof TypeSyntax.ReferenceTo reference) {
            out.open(element, "xsi:type", "ReferenceTypeSpec");
            out.open("ReferencedType");
            named(reference.target());
            out.close();
        } else {
            out.open(element, "xsi:type", "DirectlyDerivedTypeSpec");
            out.open("BaseType");
            named(type);
            out.close();
        }
        out.close();
    }

    private void initial(ExpressionSyntax initial) {
        if (initial != null) {
            out.open("InitialValue");
            value(initial);
            out.close();
        }
    }

    /** n(v) is a value that is repeated; n(v, w) is written out, as the scheme repeats single values only. */
    private void item(ExpressionSyntax.Item item) {
        boolean several = item.values().size() > 1 && item.count() instanceof ExpressionSyntax.Literal literal && literal.text().matches("\\d{1,5}");
        int times = several ? Integer.parseInt(WrittenExpression.of(item.count())) : 1;
        for (int i = 0; i < times; i++) {
            for (ExpressionSyntax one : item.values()) {
                out.open("Value", "repetitionValue", item.count() == null || several ? null : WrittenExpression.of(item.count()));
                value(one);
                out.close();
            }
        }
    }

    private void value(ExpressionSyntax value) {
        if (value instanceof ExpressionSyntax.Listed listed) {
            out.open("ArrayValue");
            for (ExpressionSyntax.Item item : listed.items()) {
                item(item);
            }
            out.close();
        } else if (value instanceof ExpressionSyntax.Composed composed) {
            out.open("StructValue");
            for (Input member : composed.members()) {
                out.open("Value", "member", member.pin());
                value(member.value());
                out.close();
            }
            out.close();
        } else {
            out.open("SimpleValue", "value", WrittenExpression.of(value)).close();
        }
    }
}
