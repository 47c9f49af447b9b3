/** Spring Boot around the core: REST under {@code /api}, the live stream, persistence and the command line. */
package rueda.app;
