/* What a user types into a field: a calculation and, if wanted, a unit: 2.5 in · 3*120 · (40+2)/2 mm/s · 3000 1/min */
grammar EntryText;

entry      : expression unit? EOF ;
expression
    : '(' expression ')'                          # parenthesis
    | op=('-' | '+') expression                   # sign
    | <assoc=right> expression op='^' expression  # calculation
    | expression op=('*' | '/') expression        # calculation
    | expression op=('+' | '-') expression        # calculation
    | NUMBER                                      # number
    ;
unit       : UNIT (('/' | '·') UNIT)* ;

NUMBER : [0-9]+ ([.,] [0-9]*)? ([eE] [+-]? [0-9]+)? | [.,] [0-9]+ ([eE] [+-]? [0-9]+)? ;
UNIT   : '1/' ('min' | 's') | [A-Za-zµμ°%] [A-Za-zµμ°%0-9²³]* ;
SPACE  : [ \t\u00a0\u202f]+ -> skip ;
