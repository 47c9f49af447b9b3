/** What the page asks about the program itself: the words of the language, files that are brought in and taken out. */
package rueda.app.program;
