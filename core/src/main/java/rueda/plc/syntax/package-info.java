/**
 * The form of Structured Text: characters to tokens ({@link rueda.plc.syntax.Lexer}), tokens to a tree
 * ({@link rueda.plc.syntax.Parser}).
 *
 * <p>Written by hand, because its heart is what it says about a text that is wrong: every mistake is told once, at the place where it was
 * made, in the words of the trade. It reads every text in time that grows linearly with its length and on a stack of bounded depth:
 * statements and expressions nest only so deep, what goes deeper is refused.
 *
 * <p>Source: IEC 61131-3, third edition, table 71 to 72 and annex A (grammar), from memory.
 */
package rueda.plc.syntax;
