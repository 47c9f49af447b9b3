/* Structured Text, IEC 61131-3: one program with variables, statements and expressions.
   Precedence of operators as in the standard's table "Operators of the ST language":
   ( ) · call · − + NOT · ** · * / MOD · + − · < > <= >= · = <> · & AND · XOR · OR */
grammar StructuredText;
options { caseInsensitive = true; }

program      : PROGRAM IDENTIFIER varBlock* statementList END_PROGRAM EOF ;
varBlock     : VAR CONSTANT? variable* END_VAR ;
variable     : IDENTIFIER (',' IDENTIFIER)* ':' typeName (':=' expression)? ';' ;
typeName     : IDENTIFIER ('[' INTEGER ']')? ;

statementList : statement* ;
statement
    : ';'                                                                            # emptyStatement
    | path ':=' expression ';'                                                       # assignment
    | path '(' (argument (',' argument)*)? ')' ';'                                   # blockCall
    | IF expression THEN statementList elsif* (ELSE otherwise=statementList)? END_IF ';'?      # ifStatement
    | CASE expression OF caseEntry+ (ELSE otherwise=statementList)? END_CASE ';'?    # caseStatement
    | FOR IDENTIFIER ':=' from=expression TO to=expression (BY by=expression)? DO statementList END_FOR ';'? # forStatement
    | WHILE expression DO statementList END_WHILE ';'?                               # whileStatement
    | REPEAT statementList UNTIL expression END_REPEAT ';'?                          # repeatStatement
    | EXIT ';'                                                                       # exitStatement
    | RETURN ';'                                                                     # returnStatement
    ;
elsif        : ELSIF expression THEN statementList ;
caseEntry    : caseLabel (',' caseLabel)* ':' statementList ;
caseLabel    : low=expression ('..' high=expression)? ;
argument     : (IDENTIFIER ':=')? expression                                         # inputArgument
             | IDENTIFIER '=>' path                                                  # outputArgument
             ;
path         : IDENTIFIER ('.' IDENTIFIER)* ;

expression
    : '(' expression ')'                                                             # parenthesis
    | IDENTIFIER '(' (expression (',' expression)*)? ')'                             # functionCall
    | op=('-' | '+' | NOT) expression                                                # unary
    | <assoc=left> expression op='**' expression                                     # binary
    | expression op=('*' | '/' | MOD) expression                                     # binary
    | expression op=('+' | '-') expression                                           # binary
    | expression op=('<' | '>' | '<=' | '>=') expression                             # binary
    | expression op=('=' | '<>') expression                                          # binary
    | expression op=('&' | AND) expression                                           # binary
    | expression op=XOR expression                                                   # binary
    | expression op=OR expression                                                    # binary
    | literal                                                                        # literalValue
    | path                                                                           # variableValue
    ;
literal      : TYPED | DURATION | DATE_AND_TIME | CALENDAR_DATE | DAYTIME | CHARACTERS | WIDE_CHARACTERS | TYPED_CHARACTERS | BASED | REAL_NUMBER | INTEGER | TRUE | FALSE ;

PROGRAM : 'PROGRAM'; END_PROGRAM : 'END_PROGRAM'; VAR : 'VAR'; END_VAR : 'END_VAR'; CONSTANT : 'CONSTANT';
IF : 'IF'; THEN : 'THEN'; ELSIF : 'ELSIF'; ELSE : 'ELSE'; END_IF : 'END_IF';
CASE : 'CASE'; OF : 'OF'; END_CASE : 'END_CASE';
FOR : 'FOR'; TO : 'TO'; BY : 'BY'; DO : 'DO'; END_FOR : 'END_FOR';
WHILE : 'WHILE'; END_WHILE : 'END_WHILE'; REPEAT : 'REPEAT'; UNTIL : 'UNTIL'; END_REPEAT : 'END_REPEAT';
EXIT : 'EXIT'; RETURN : 'RETURN'; NOT : 'NOT'; AND : 'AND'; XOR : 'XOR'; OR : 'OR'; MOD : 'MOD';
TRUE : 'TRUE'; FALSE : 'FALSE';

DATE_AND_TIME : ('DT' | 'DATE_AND_TIME' | 'LDT' | 'LDATE_AND_TIME') '#' DIGITS '-' DIGITS '-' DIGITS '-' DAY_CLOCK ;
CALENDAR_DATE : ('D' | 'DATE' | 'LD' | 'LDATE') '#' DIGITS '-' DIGITS '-' DIGITS ;
DAYTIME      : ('TOD' | 'TIME_OF_DAY' | 'LTOD' | 'LTIME_OF_DAY') '#' DAY_CLOCK ;
CHARACTERS   : '\'' (~['$\r\n] | '$' .)* '\'' ;
WIDE_CHARACTERS : '"' (~["$\r\n] | '$' .)* '"' ;
TYPED_CHARACTERS : ('STRING' | 'WSTRING' | 'CHAR' | 'WCHAR') '#' (CHARACTERS | WIDE_CHARACTERS) ;
DURATION     : ('TIME' | 'T' | 'LTIME' | 'LT') '#' '-'? (DIGITS ('.' DIGITS)? UNIT '_'?)+ ;
TYPED        : [A-Z] [A-Z0-9_]* '#' '-'? (BASED | REAL_NUMBER | INTEGER | 'TRUE' | 'FALSE') ;
BASED        : ('2' | '8' | '16') '#' [0-9A-F] [0-9A-F_]* ;
REAL_NUMBER  : DIGITS '.' DIGITS ('E' [+-]? DIGITS)? | DIGITS 'E' [+-]? DIGITS ;
INTEGER      : DIGITS ;
IDENTIFIER   : [A-Z_] [A-Z0-9_]* ;
fragment DAY_CLOCK : DIGITS ':' DIGITS (':' DIGITS ('.' DIGITS)?)? ;
fragment DIGITS : [0-9] ('_'? [0-9])* ;
fragment UNIT   : 'MS' | 'US' | 'NS' | 'D' | 'H' | 'M' | 'S' ;
COMMENT      : '(*' .*? '*)' -> skip ;
LINE_COMMENT : '//' ~[\r\n]* -> skip ;
SPACE        : [ \t\r\n]+ -> skip ;
