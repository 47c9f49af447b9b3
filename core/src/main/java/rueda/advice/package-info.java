/**
 * What entries cause: figures with their formula, and findings with cause, consequence and, where there is one, a
 * mend that can be applied as a change of the document.
 */
package rueda.advice;
