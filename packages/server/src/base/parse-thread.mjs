/** Begins the parsing thread where the sources run as they are: the built one. A build has its own in this file's place. */
import '../../dist/parse-thread.mjs'
