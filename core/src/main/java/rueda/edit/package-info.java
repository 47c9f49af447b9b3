/**
 * Changes of the document that touch more than one place, each giving a new document: an axis added, copied, renamed with everything that
 * names it, moved, removed; and what is different between two documents, in words. Nothing here keeps state; a page applies the outcome as
 * one change that can be undone.
 */
package rueda.edit;
