package rueda.format.tags;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.antlr.v4.runtime.BaseErrorListener;
import org.antlr.v4.runtime.CharStreams;
import org.antlr.v4.runtime.CommonTokenStream;
import org.antlr.v4.runtime.RecognitionException;
import org.antlr.v4.runtime.Recognizer;
import org.antlr.v4.runtime.Token;
import rueda.format.Text;
import rueda.format.UnreadableFile;
import rueda.format.tags.Declaration.Shape;
import rueda.format.tags.grammar.TagDeclarationsLexer;
import rueda.format.tags.grammar.TagDeclarationsParser;
import rueda.plc.ProcessAddress;
import rueda.plc.TagRow;

/** Declarations in Structured Text: TYPE with structures, arrays, enumerations and subranges, VAR_GLOBAL with addresses (IEC 61131-3). */
public final class TagDeclarationsReader {

    private static final int MOST_ELEMENTS = 4096;
    private static final Pattern NAME = Pattern.compile("\\{\\s*name\\s+'([A-Za-z_][A-Za-z0-9_.]{0,199})'\\s*\\}");

    private TagDeclarationsReader() {
    }

    /** @throws UnreadableFile naming the line */
    public static List<TagRow> read(byte[] file, int alignment, ProcessAddress.Counts counts) {
        TagDeclarationsLexer lexer = new TagDeclarationsLexer(CharStreams.fromString(Text.decoded(file)));
        CommonTokenStream tokens = new CommonTokenStream(lexer);
        TagDeclarationsParser parser = new TagDeclarationsParser(tokens);
        BaseErrorListener refuse = new BaseErrorListener() {
            @Override
            public void syntaxError(Recognizer<?, ?> recognizer, Object symbol, int line, int column, String message, RecognitionException cause) {
                String found = symbol instanceof Token token ? token.getText() : message;
                throw new UnreadableFile("line " + line + ", column " + (column + 1), found.equals("<EOF>") ? "the end of the file" : found,
                        "TYPE … END_TYPE or VAR_GLOBAL … END_VAR with lines like Name AT %QW0 : INT;", "correct it");
            }
        };
        lexer.removeErrorListeners();
        lexer.addErrorListener(refuse);
        parser.removeErrorListeners();
        parser.addErrorListener(refuse);
        TagDeclarationsParser.FileContext tree;
        try {
            tree = parser.file();
        } catch (StackOverflowError deep) {
            throw new UnreadableFile("File", "declarations nested too deep", "a few levels", "correct the file");
        }
        Map<String, Shape> types = new LinkedHashMap<>();
        Map<String, String> typeNames = new LinkedHashMap<>();
        for (TagDeclarationsParser.TypeBlockContext block : tree.typeBlock()) {
            for (TagDeclarationsParser.TypeDeclarationContext type : block.typeDeclaration()) {
                Shape shape = type.structure() != null ? structure(type.structure(), tokens) : shape(type.type());
                typeNames.put(type.ID().getText().toLowerCase(Locale.ROOT), type.ID().getText());
                if (types.put(type.ID().getText().toLowerCase(Locale.ROOT), shape) != null) {
                    throw new UnreadableFile(place(type.getStart()), type.ID().getText(), "each type once", "remove the second");
                }
            }
        }
        List<Declaration> variables = new ArrayList<>();
        tree.varBlock().forEach(block -> block.member().forEach(m -> members(m, variables, tokens)));
        if (variables.isEmpty() && !types.isEmpty()) {
            /* structures alone: each stands for an image of its own */
            types.forEach((key, shape) -> variables.add(new Declaration(typeNames.get(key), shape, "", "", "TYPE " + typeNames.get(key))));
        }
        if (variables.isEmpty()) {
            throw new UnreadableFile("File", "no variable", "at least one in VAR_GLOBAL … END_VAR or TYPE … END_TYPE", "choose a file with declarations");
        }
        return Declaration.rows(variables, types, alignment, counts);
    }

    private static String place(Token token) {
        return "line " + token.getLine();
    }

    private static Shape structure(TagDeclarationsParser.StructureContext structure, CommonTokenStream tokens) {
        List<Declaration> members = new ArrayList<>();
        structure.member().forEach(m -> members(m, members, tokens));
        return new Shape.Structure(List.copyOf(members));
    }

    private static void members(TagDeclarationsParser.MemberContext member, List<Declaration> into, CommonTokenStream tokens) {
        Shape shape = member.structure() != null ? structure(member.structure(), tokens) : shape(member.type());
        String address = member.ADDRESS() == null ? "" : member.ADDRESS().getText();
        String comment = comment(member.getStop(), tokens);
        member.ID().forEach(id -> into.add(new Declaration(name(id.getSymbol(), tokens), shape, address, comment, place(id.getSymbol()) + ", " + id.getText())));
    }

    /** A pragma {name 'Shuttle.Cmd'} before a variable tells the name that its identifier cannot have. */
    private static String name(Token identifier, CommonTokenStream tokens) {
        List<Token> hidden = tokens.getHiddenTokensToLeft(identifier.getTokenIndex());
        if (hidden != null && !hidden.isEmpty()) {
            Matcher pragma = NAME.matcher(hidden.get(hidden.size() - 1).getText());
            if (pragma.matches()) {
                return pragma.group(1);
            }
        }
        return identifier.getText();
    }

    /** What stands behind a declaration in its line. */
    private static String comment(Token end, CommonTokenStream tokens) {
        List<Token> hidden = tokens.getHiddenTokensToRight(end.getTokenIndex());
        if (hidden == null || hidden.get(0).getLine() != end.getLine() || hidden.get(0).getText().startsWith("{")) {
            return "";
        }
        String text = hidden.get(0).getText();
        return text.substring(2, text.startsWith("//") ? text.length() : text.length() - 2).strip();
    }

    private static Shape shape(TagDeclarationsParser.TypeContext type) {
        if (type instanceof TagDeclarationsParser.ArrayContext array) {
            Shape shape = shape(array.type());
            for (int i = array.range().size() - 1; i >= 0; i--) {
                TagDeclarationsParser.RangeContext range = array.range(i);
                int from = (int) Text.whole(place(range.getStart()), range.from.getText(), -32_768, 32_767);
                int to = (int) Text.whole(place(range.getStart()), range.to.getText(), from, (long) from + MOST_ELEMENTS - 1);
                shape = new Shape.Array(from, to, shape);
            }
            return shape;
        }
        if (type instanceof TagDeclarationsParser.SubrangeContext subrange) {
            return new Shape.Named(subrange.ID().getText());
        }
        if (type instanceof TagDeclarationsParser.EnumerationOnContext enumeration) {
            return new Shape.Named(enumeration.ID().getText());
        }
        if (type instanceof TagDeclarationsParser.EnumerationContext) {
            return Declaration.ENUMERATION;
        }
        return new Shape.Named(((TagDeclarationsParser.NamedContext) type).ID().getText());
    }
}
