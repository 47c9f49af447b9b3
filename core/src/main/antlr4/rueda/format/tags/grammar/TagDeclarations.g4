/* Declarations of structures, enumerations, subranges and global variables, IEC 61131-3 tables 11 and 14. */
grammar TagDeclarations;
options { caseInsensitive = true; }

file : (typeBlock | varBlock)* EOF ;
typeBlock : 'TYPE' typeDeclaration* 'END_TYPE' ';'? ;
typeDeclaration : ID ':' (structure | type) (':=' initial)? ';'? ;
structure : 'STRUCT' member* 'END_STRUCT' ;
varBlock : VAR QUALIFIER* member* 'END_VAR' ;
member : ID (',' ID)* ('AT' ADDRESS)? ':' (structure | type) (':=' initial)? ';' ;
type : 'ARRAY' '[' range (',' range)* ']' 'OF' type # array
     | ID '(' from=NUMBER '..' to=NUMBER ')' # subrange
     | enumerators # enumeration
     | ID enumerators # enumerationOn
     | enumerators ID # enumerationOn
     | ID ('[' NUMBER ']' | '(' NUMBER ')')? # named
     ;
enumerators : '(' enumerator (',' enumerator)* ')' ;
enumerator : ID (':=' (NUMBER | OTHER_LITERAL | ID))? ;
range : from=NUMBER '..' to=NUMBER ;
initial : (~(';'))+ ;

VAR : 'VAR' | 'VAR_GLOBAL' | 'VAR_INPUT' | 'VAR_OUTPUT' | 'VAR_EXTERNAL' ;
QUALIFIER : 'CONSTANT' | 'RETAIN' | 'NON_RETAIN' | 'PERSISTENT' ;
ADDRESS : '%' [IQM] [XBWDL]? ('*' | [0-9]+ ('.' [0-9]+)*) ;
NUMBER : '-'? [0-9]+ ;
ID : [\p{L}_] [\p{L}0-9_]* ;
OTHER_LITERAL : [0-9]+ ('.' [0-9]+)? ('E' [+-]? [0-9]+)? | '\'' ~['\r\n]* '\'' | '"' ~["\r\n]* '"' | [0-9A-Z_]+ '#' [0-9A-Z_.:+-]+ ;
COMMENT : ('(*' .*? '*)' | '/*' .*? '*/' | '//' ~[\r\n]* | '{' ~[}]* '}') -> channel(HIDDEN) ;
SPACE : [ \t\r\n\f]+ -> skip ;
SIGN : [-+*/().,=<>&[\]{}#:|^@!?$%~] ;
